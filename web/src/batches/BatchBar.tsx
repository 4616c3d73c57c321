import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { AboutBatch } from "./AboutBatch";
import type { Batch, Deeds, Edits } from "./draftDeeds";
import { ChangeMenu } from "./ChangeMenu";
import { WORKS_AT } from "./leaving";
import { Questions } from "./BatchQuestions";

const GOES: Record<Schemas["BatchView"]["leaves"], string> = {
  ON_PAPER: "Go to printing",
  BY_FILE: "Go to its files",
  FROM_LIST: "Go to its wires",
  ELSEWHERE: "Go to posting",
};

/** What can be done with the batch as it is, and with what is selected in it. */
export function BatchBar({
  batch,
  editable,
  selected,
  total,
  edits,
  deeds,
  onAdd,
  onPay,
}: {
  batch: Batch;
  editable: boolean;
  selected: number[];
  total: Schemas["LinesTotal"] | undefined;
  edits: Edits;
  deeds: Deeds;
  onAdd: () => void;
  onPay: () => void;
}) {
  const session = useSession();
  const edit = edits.run;
  const [asking, setAsking] = useState<"send" | "withdraw" | "gather" | "about">();
  const approver = session.roles.includes("APPROVER") || session.roles.includes("CONTROLLER");
  const clerk = session.roles.includes("CLERK");
  const none = selected.length === 0;
  return (
    <>
      {editable && (
        <>
          <Button onClick={onAdd}>Add invoices…</Button>
          <Button
            disabled={none}
            onClick={() => void edit((v) => deeds.takeOut(v, selected), `Took out ${selected.length}.`)}
          >
            Take out {selected.length > 1 ? selected.length : ""}
          </Button>
          <ChangeMenu
            batch={batch}
            selected={selected}
            edits={edits}
            deeds={deeds}
            onPay={onPay}
            onAsk={setAsking}
          />
          <Button
            disabled={!batch.undo}
            title={batch.undo ? `Undo: ${batch.undo}` : "Nothing to undo"}
            onClick={() => void edit(deeds.undo)}
          >
            Undo
          </Button>
          <Button
            disabled={!batch.redo}
            title={batch.redo ? `Do again: ${batch.redo}` : "Nothing to do again"}
            onClick={() => void edit(deeds.redo)}
          >
            Do again
          </Button>
        </>
      )}
      <span className="text-faint ml-auto text-note" aria-live="polite">
        {total
          ? `${total.count} selected, settles ${total.settles}, pays ${total.pays}`
          : editable && (
              <span className="max-[1400px]:hidden">Space takes out · a digit pays part · ? keys</span>
            )}
      </span>
      {batch.purpose === "OUTSIDE" && batch.state === "DRAFT" && clerk && (
        <Link
          to={`/outside/${batch.id}`}
          className="text-harbour border-faint bg-sheet inline-flex min-h-8 items-center border px-3"
        >
          Change what is recorded…
        </Link>
      )}
      {batch.purpose === "DIRECT" && batch.state === "DRAFT" && clerk && (
        <Link
          to={`/direct/${batch.id}`}
          className="text-harbour border-faint bg-sheet inline-flex min-h-8 items-center border px-3"
        >
          Change what it pays…
        </Link>
      )}
      {batch.kept && ["DRAFT", "IN_APPROVAL", "APPROVED"].includes(batch.state) && clerk && (
        <Button onClick={() => setAsking("withdraw")}>Withdraw…</Button>
      )}
      {batch.state === "DRAFT" && clerk && (
        <Button look="deed" disabled={batch.claims.length === 0} onClick={() => setAsking("send")}>
          Send for approval…
        </Button>
      )}
      {batch.state === "IN_APPROVAL" && approver && (
        <Link
          to={`/approval/${batch.id}`}
          className="bg-harbour text-onharbour inline-flex min-h-8 items-center px-3 font-bold"
        >
          Look and answer
        </Link>
      )}
      {["APPROVED", "NUMBERED", "FILED"].includes(batch.state) && clerk && (
        <Link
          to={batch.leaves === "ELSEWHERE" ? `/post?at=${batch.id}` : `${WORKS_AT[batch.leaves]}/${batch.id}`}
          className="bg-harbour text-onharbour inline-flex min-h-8 items-center px-3 font-bold"
        >
          {GOES[batch.leaves]}
        </Link>
      )}
      {asking === "about" && (
        <AboutBatch batch={batch} edits={edits} deeds={deeds} onClose={() => setAsking(undefined)} />
      )}
      <Questions
        batch={batch}
        asking={asking === "about" ? undefined : asking}
        onClose={() => setAsking(undefined)}
        edits={edits}
        deeds={deeds}
      />
    </>
  );
}
