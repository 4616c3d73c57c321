import { cleanup, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { serve } from "../tests/served";
import { FilingPage } from "./FilingPage";
import type { Filing, FilingLine, PaymentFile } from "./useFiling";

const line = (claim: number, payee: string, more: Partial<FilingLine> = {}): FilingLine => ({
  claim,
  payee,
  bank: "IBAN ZZ ••••1062",
  amount: "10.00",
  called: "",
  step: "WAITS",
  why: "",
  ...more,
});
const filing = (more: Partial<Filing>): Filing => ({
  account: 1,
  accountName: "Continental",
  currency: "EUR",
  way: "Credit transfers",
  notSetUp: "",
  paysOn: "2026-11-13",
  until: "until 17:00",
  toFile: 2,
  toFileAmount: "20.00",
  sizes: [2],
  refused: "",
  toAnnounce: 0,
  fileable: true,
  payments: [line(1, "Werft Köhlersand"), line(2, "Bracken Isle Ferries Pool")],
  files: [],
  ...more,
});
const file: PaymentFile = {
  id: 9,
  serial: 4,
  name: "transfers-4.xml",
  madeAt: "2026-11-12T10:00:00Z",
  madeBy: "Ines Okafor",
  payments: 2,
  announced: 0,
  total: "20.00",
  paysOn: "2026-11-13",
  state: "MADE",
  words: "not known yet",
  note: "",
};

function page(of: Filing, roles = ["CLERK"], answers: Record<string, unknown> = {}) {
  return serve(<FilingPage />, {
    path: "/file/:id",
    at: "/file/7",
    roles,
    answers: {
      "GET /api/batches/{id}": {
        id: 7,
        name: "Mid-November",
        stateWords: "approved",
      } as Schemas["BatchView"],
      "GET /api/batches/{id}/filing": of,
      "GET /api/batches/{id}/level": { level: true, tallies: [], vials: [], voidedCount: 0, voided: "0.00" },
      "GET /api/exchange/channels/{account}": { kind: "NONE" },
      ...answers,
    },
  });
}

describe("payments by file", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("says on which day a file is paid and until when, and makes it", async () => {
    const { sent, user } = page(filing({}), ["CLERK"], {
      "POST /api/batches/{id}/filing": filing({
        toFile: 0,
        payments: [],
        files: [{ ...file, state: "REFUSED" }],
      }),
    });
    expect(await screen.findByText(/the bank takes files until 17:00/)).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Make the file of 2 payments…" }));
    await user.click(await screen.findByRole("button", { name: "Make the file of 2 payments" }));
    expect(await screen.findByText("File 4")).toBeTruthy();
    expect(sent).toEqual([{ path: "/api/batches/7/filing", body: { claims: [] } }]);
  });

  it("says how many files a large batch takes, and why one cannot be made", async () => {
    const { user } = page(filing({ toFile: 5, sizes: [3, 2] }));
    await user.click(await screen.findByRole("button", { name: "Make the file of 5 payments…" }));
    expect(await screen.findByText(/2 are made, of 3, 2 payments/)).toBeTruthy();
    cleanup();
    const over = page(filing({ refused: "They come to more than the bank takes in a day." }));
    await over.user.click(await screen.findByRole("button", { name: "Make the file of 2 payments…" }));
    expect(await screen.findByText("They come to more than the bank takes in a day.")).toBeTruthy();
  });

  it("shows what the bank has not answered, and takes no payment out of a file that is with it", async () => {
    page(
      filing({
        toFile: 0,
        fileable: false,
        payments: [line(1, "Werft Köhlersand", { step: "IN_FILE", called: "CT1", file: 4 })],
        files: [file],
      }),
      ["AUDITOR"],
    );
    const files = within(await screen.findByRole("region", { name: "Files" }));
    expect(files.getByText("not known yet")).toBeTruthy();
    expect(screen.getByText("of which the bank said nothing yet")).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Take out…" })).toBeNull();
    expect(screen.queryByRole("button", { name: /Download/ })).toBeNull();
  });
});
