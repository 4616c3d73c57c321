import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { Dialog } from "../parts/Dialog";
import { ChecksEntry, ChoiceEntry, DayEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";

type Document = Schemas["InvoicePage"];
type Asking = "cancel" | "change" | "refund" | "note" | "back";

/** What may still become of a document. */
export function InvoiceDeeds({ document }: { document: Document }) {
  const { roles } = useSession();
  const [asking, setAsking] = useState<Asking>();
  const close = () => setAsking(undefined);
  const clerk = roles.includes("CLERK");
  const refund = document.settled.find((row) => row.refund)?.refund;
  return (
    <>
      {clerk && (
        <>
          {!document.ahead && (
            <>
              {" "}
              <Button
                disabled={Boolean(document.changes)}
                title={document.changes ?? undefined}
                onClick={() => setAsking("change")}
              >
                Pay it otherwise…
              </Button>
              {document.cancels ? (
                <Button disabled title={document.cancels}>
                  Correct it…
                </Button>
              ) : (
                <Link
                  className="text-harbour border-faint bg-sheet inline-flex min-h-8 items-center border px-3"
                  to={`/enter?corrects=${document.id}`}
                >
                  Correct it…
                </Link>
              )}
              <Button
                disabled={Boolean(document.cancels)}
                title={document.cancels ?? undefined}
                onClick={() => setAsking("cancel")}
              >
                Cancel it…
              </Button>
            </>
          )}
          {document.comesBack && <Button onClick={() => setAsking("refund")}>Money came back…</Button>}
          {refund && <Button onClick={() => setAsking("back")}>Take the refund back…</Button>}
        </>
      )}
      {!roles.every((role) => role === "AUDITOR" || role === "ADMINISTRATOR") && (
        <Button onClick={() => setAsking("note")}>Note…</Button>
      )}
      {clerk && document.cancels && document.changes === null && (
        <span className="text-faint text-note">{document.cancels}</span>
      )}
      <Dialog open={asking === "cancel"} onClose={close} title={`Cancel ${document.reference}`}>
        <Cancel document={document} close={close} />
      </Dialog>
      <Dialog open={asking === "change"} onClose={close} title={`When and how ${document.reference} is paid`}>
        <Change document={document} close={close} />
      </Dialog>
      <Dialog
        open={asking === "refund"}
        onClose={close}
        title={`Money for ${document.kindWords.toLowerCase()} ${document.reference}`}
      >
        <Refund document={document} close={close} />
      </Dialog>
      {refund && (
        <Dialog open={asking === "back"} onClose={close} title="Take the refund back">
          <RefundBack document={document} refund={refund} close={close} />
        </Dialog>
      )}
      <Note document={document} open={asking === "note"} close={close} />
    </>
  );
}

interface Asked {
  document: Document;
  close: () => void;
}

/** Everything that may show it is looked at again. */
function useDone(close: () => void) {
  const queries = useQueryClient();
  return async (words: string) => {
    await queries.invalidateQueries();
    toast(words);
    close();
  };
}

function Cancel({ document, close }: Asked) {
  const { today } = useSession();
  const done = useDone(close);
  const params = { path: { id: document.id } };
  const form = useKeptForm(`cancel invoice ${document.id}`, { on: today, reason: "" }, async (typed) => {
    await call(api.POST("/api/invoices/{id}/cancel", { params, body: typed }));
    await done(`${document.reference} is cancelled; its entry is reversed.`);
  });
  return (
    <Form form={form} label="Cancel it" deed={`Cancel ${document.reference}`} look="grave" onClose={close}>
      <p>
        Its entry is reversed on that day, and nothing of it is owed any more. It stays, and can be looked up;
        its reference can be used again.
      </p>
      <DayEntry name="on" label="Reversed on" />
      <Entry name="reason" label="Why it is cancelled" rows={2} maxLength={200} />
    </Form>
  );
}

function Change({ document, close }: Asked) {
  const done = useDone(close);
  const form = useKeptForm(
    `change invoice ${document.id}`,
    {
      terms: "",
      due: document.dueDate,
      remitTo: String(document.remitTo),
      own: document.ownCheck ? "own" : "",
      reason: "",
    },
    async (typed) => {
      await call(
        api.POST("/api/invoices/{id}/change", {
          params: { path: { id: document.id } },
          body: {
            terms: typed.terms,
            dueDate: typed.due !== document.dueDate || !typed.terms.trim() ? typed.due : undefined,
            remitTo: Number(typed.remitTo),
            ownCheck: typed.own === "own",
            reason: typed.reason,
          },
        }),
      );
      await done(`${document.reference} is paid as you said; a draft that has it is reckoned anew.`);
    },
  );
  return (
    <Form form={form} label="How it is paid" deed="Change it" onClose={close}>
      <Entry
        name="terms"
        label="Other terms, empty for those it has"
        maxLength={60}
        placeholder="2% 10, net 30"
      />
      <DayEntry name="due" label="Due" />
      <ChoiceEntry
        name="remitTo"
        label="It goes to"
        choices={document.addresses.map((one) => ({ value: String(one.id), text: one.words }))}
      />
      <ChecksEntry name="own" choices={[{ value: "own", text: "It must have its own check" }]} />
      <Entry name="reason" label="Why" rows={2} maxLength={200} />
    </Form>
  );
}

function Refund({ document, close }: Asked) {
  const { today } = useSession();
  const done = useDone(close);
  const accounts = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
  });
  const choices = (accounts.data ?? [])
    .filter((one) => one.currency === document.amount.currency)
    .map((one) => ({ value: String(one.id), text: one.name }));
  const form = useKeptForm(
    `refund of ${document.id}`,
    { account: "", amount: document.open.text, on: today, reference: "" },
    async (typed) => {
      await call(
        api.POST("/api/invoices/{id}/refund", {
          params: { path: { id: document.id } },
          body: { ...typed, account: Number(typed.account || choices[0]?.value) },
        }),
      );
      await done("Written down: the vendor sent it back.");
    },
  );
  return (
    <Form form={form} label="Money that came back" deed="Write it down" onClose={close}>
      <ChoiceEntry name="account" label="Into" choices={choices} />
      <Entry name="amount" label="Amount" inputMode="decimal" look="text-right" />
      <DayEntry name="on" label="Received on" />
      <Entry name="reference" label="Reference" maxLength={60} />
    </Form>
  );
}

function RefundBack({ document, refund, close }: Asked & { refund: number }) {
  const { today } = useSession();
  const done = useDone(close);
  const form = useKeptForm(`refund back ${refund}`, { on: today, reason: "" }, async (typed) => {
    await call(
      api.POST("/api/invoices/{id}/refund/{refund}/undo", {
        params: { path: { id: document.id, refund } },
        body: typed,
      }),
    );
    await done("Taken back; as much is open again.");
  });
  return (
    <Form form={form} label="Take it back" deed="Take it back" look="grave" onClose={close}>
      <DayEntry name="on" label="Reversed on" />
      <Entry name="reason" label="Why" rows={2} maxLength={200} />
    </Form>
  );
}

function Note({ document, open, close }: Asked & { open: boolean }) {
  const done = useDone(close);
  return (
    <DeedDialog
      open={open}
      onClose={close}
      title={`Note on ${document.reference}`}
      deed="Write it down"
      reason="Note"
      run={async (text) => {
        await call(
          api.POST("/api/invoices/{id}/note", { params: { path: { id: document.id } }, body: { text } }),
        );
        await done("Written down.");
      }}
    >
      <p className="text-faint">Notes stay as they are written, with who and when.</p>
    </DeedDialog>
  );
}
