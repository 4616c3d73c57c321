import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call } from "../api/client";
import { DeedDialog } from "../parts/DeedDialog";
import { Dialog } from "../parts/Dialog";
import { Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";

type Answered = { id: number; serial: number };

/** Records what the bank said of a file: taken, taken but for some of it, or refused. */
export function BankSaid({
  file,
  singles,
  such,
  refused,
}: {
  file: Answered;
  /** What is asked for of single refusals, and how one looks. */
  singles: string;
  such: string;
  /** What becomes of what a refused file told. */
  refused: string;
}) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState<"took" | "refused">();
  const leave = () => setAsking(undefined);
  return (
    <>
      <button className="go min-h-6" onClick={() => setAsking("took")}>
        The bank took it…
      </button>
      <button className="text-rust min-h-6 underline" onClick={() => setAsking("refused")}>
        The bank refused it…
      </button>
      <Dialog open={asking === "took"} onClose={leave} title={`The bank took file ${file.serial}`}>
        <Taken file={file} singles={singles} such={such} close={leave} />
      </Dialog>
      <DeedDialog
        open={asking === "refused"}
        onClose={leave}
        title={`The bank refused file ${file.serial}`}
        deed="Record the refusal"
        grave
        reason="What the bank found wrong"
        run={async (note) => {
          await call(
            api.POST("/api/bank-files/{id}/refused", { params: { path: { id: file.id } }, body: { note } }),
          );
          await queries.invalidateQueries();
        }}
      >
        <p>{refused}</p>
      </DeedDialog>
    </>
  );
}

/** The bank took it, but perhaps not all of it. */
function Taken({
  file,
  singles,
  such,
  close,
}: {
  file: Answered;
  singles: string;
  such: string;
  close: () => void;
}) {
  const queries = useQueryClient();
  const form = useKeptForm(
    `bank took ${file.id}`,
    { note: "", refused: "" },
    (typed) =>
      call(api.POST("/api/bank-files/{id}/accepted", { params: { path: { id: file.id } }, body: typed })),
    {
      done: async () => {
        await queries.invalidateQueries();
        close();
      },
    },
  );
  return (
    <Form form={form} label="The bank took it" deed="Record that the bank took it" onClose={close}>
      <Entry name="refused" label={singles} rows={3} look="font-mono" placeholder={such} />
      <Entry name="note" label="Note, where one is needed" maxLength={300} />
    </Form>
  );
}
