import { api, call, type Schemas } from "../api/client";

export type Batch = Schemas["BatchView"];

/** One edit of the batch as it is when its turn comes. */
export interface Step {
  deed: (version: number) => Promise<Batch>;
  said?: string;
}

/** The edits of a draft, one after the other; `must` throws what was refused, for a dialog that shows it. */
export interface Edits {
  run: (deed: Step["deed"], said?: string) => Promise<boolean>;
  must: (deed: Step["deed"], said?: string) => Promise<void>;
  busy: boolean;
}

/** The edits of one draft; each is saved at once and answers with the batch as it is then. */
export function draftDeeds(id: number) {
  const path = { id };
  return {
    takeOut: (version: number, invoices: number[]) =>
      call(api.POST("/api/batches/{id}/take-out", { params: { path }, body: { version, invoices } })),
    clear: (version: number) =>
      call(api.POST("/api/batches/{id}/clear", { params: { path }, body: { version } })),
    pay: (version: number, invoice: number, cash: string | null) =>
      call(
        api.POST("/api/batches/{id}/lines/{invoice}/pay", {
          params: { path: { id, invoice } },
          body: { version, cash: cash ?? undefined },
        }),
      ),
    ownCheck: (version: number, invoice: number) =>
      call(
        api.POST("/api/batches/{id}/lines/{invoice}/own-check", {
          params: { path: { id, invoice } },
          body: { version },
        }),
      ),
    split: (version: number, invoices: number[]) =>
      call(api.POST("/api/batches/{id}/split", { params: { path }, body: { version, invoices } })),
    join: (version: number, invoices: number[]) =>
      call(api.POST("/api/batches/{id}/join", { params: { path }, body: { version, invoices } })),
    show: (version: number, invoices: number[], onStub: boolean) =>
      call(api.POST("/api/batches/{id}/on-stub", { params: { path }, body: { version, invoices, onStub } })),
    sendTo: (version: number, claim: number, remitTo: number) =>
      call(
        api.POST("/api/batches/{id}/claims/{claim}/remit-to", {
          params: { path: { id, claim } },
          body: { version, remitTo },
        }),
      ),
    note: (version: number, claim: number, note: string) =>
      call(
        api.POST("/api/batches/{id}/claims/{claim}/note", {
          params: { path: { id, claim } },
          body: { version, note },
        }),
      ),
    useCredits: (version: number, claim: number, credits: number[]) =>
      call(
        api.POST("/api/batches/{id}/claims/{claim}/credits", {
          params: { path: { id, claim } },
          body: { version, credits },
        }),
      ),
    releaseCredits: (version: number) =>
      call(api.POST("/api/batches/{id}/release-credits", { params: { path }, body: { version } })),
    add: (version: number, invoices: number[]) =>
      call(api.POST("/api/batches/{id}/lines", { params: { path }, body: { version, invoices } })),
    gatherAgain: (version: number, shown: string) =>
      call(api.POST("/api/batches/{id}/gather-again", { params: { path }, body: { version, shown } })),
    about: (version: number, about: { name: string; note: string; checkDate: string; ledgerDate: string }) =>
      call(api.POST("/api/batches/{id}/about", { params: { path }, body: { version, ...about } })),
    undo: (version: number) =>
      call(api.POST("/api/batches/{id}/undo", { params: { path }, body: { version } })),
    redo: (version: number) =>
      call(api.POST("/api/batches/{id}/redo", { params: { path }, body: { version } })),
  };
}

export type Deeds = ReturnType<typeof draftDeeds>;
