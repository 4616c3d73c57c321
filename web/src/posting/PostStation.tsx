import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { toast } from "sonner";
import { api, call } from "../api/client";
import { BatchList, type Listed } from "../batches/BatchList";
import { useSession } from "../frame/session";
import { WORKS_AT } from "../batches/leaving";
import { taken, useFiling } from "../electronic/useFiling";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { usePrinting } from "../printing/usePrinting";
import { LevelStrip } from "../proof/LevelStrip";
import { useWires } from "../wires/useWires";

/** Numbered batches: what came out good is posted, the rest waits; and what was made elsewhere, once it is agreed to. */
export function PostStation() {
  return (
    <BatchList
      list="post"
      title="Post"
      sentence={
        <>
          Batches with their numbers, in a file, ordered at the bank, or made elsewhere and agreed to, to be
          posted.
        </>
      }
      states={["NUMBERED", "FILED", "APPROVED"]}
      which={(batch) => batch.state !== "APPROVED" || batch.leaves === "ELSEWHERE"}
      opens={(batch) => WORKS_AT[batch.leaves]}
      empty="Nothing to post. Batches come here when their checks are printed, when they stand in a file, or when what they record is agreed to."
      slip={(batch) =>
        ({
          ELSEWHERE: <ElsewhereSlip batch={batch} />,
          BY_FILE: <FiledSlip batch={batch} />,
          FROM_LIST: <WiredSlip batch={batch} />,
          ON_PAPER: <PostSlip batch={batch} />,
        })[batch.leaves]
      }
      strip={(batch) => <LevelStrip batch={batch.id} />}
    />
  );
}

/** What was made elsewhere is posted as a whole: there are no sheets to answer for. */
function ElsewhereSlip({ batch }: { batch: Listed }) {
  const { roles } = useSession();
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  const posted = usePosted(batch);
  const what = `${batch.claims} ${batch.claims === 1 ? "payment" : "payments"}`;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-base font-bold">{batch.name}</h2>
      <p>
        <b>{what}</b> made elsewhere, {batch.amount.text} {batch.amount.currency}, agreed to and ready to be
        posted.
      </p>
      <div className="flex gap-2">
        <Button look="deed" disabled={!roles.includes("CLERK")} onClick={() => setAsking(true)}>
          Post {what}…
        </Button>
        <Button onClick={() => navigate(`/batches/${batch.id}`)}>Look at the batch</Button>
      </div>
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`Post ${what} of “${batch.name}”`}
        deed={`Post ${what}`}
        run={posted}
      >
        <p>
          The invoices are settled and the ledger is written. Nothing is printed; the bank hears only of
          checks that were written by hand, in its next file.
        </p>
      </DeedDialog>
    </div>
  );
}

/** Posts a batch, and says how much of it. */
function usePosted(batch: Listed) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  return async () => {
    const done = await call(api.POST("/api/batches/{id}/post", { params: { path: { id: batch.id } } }));
    await queries.invalidateQueries();
    toast(
      done.waiting === 0
        ? `Posted ${done.postedNow}. “${batch.name}” is posted in full.`
        : `Posted ${done.postedNow}; ${done.waiting} of “${batch.name}” wait.`,
    );
    if (done.waiting === 0) navigate(`/batches/${batch.id}`);
  };
}

/** What the bank took is posted; the rest waits for its answer, or for another file. */
function FiledSlip({ batch }: { batch: Listed }) {
  const filing = useFiling(batch.id).data;
  if (!filing) return null;
  const good = taken(filing);
  const open = filing.payments.filter((one) => !["TAKEN", "POSTED", "UNDONE"].includes(one.step)).length;
  return (
    <Postable
      batch={batch}
      good={good.map((one) => ({
        key: one.claim,
        number: one.called,
        payee: one.payee,
        amount: one.amount,
      }))}
      came="was taken by the bank and can be posted"
      cameMany="were taken by the bank and can be posted"
      caption="Taken, not posted"
      waits={
        open > 0
          ? `${open} still ${open === 1 ? "waits" : "wait"} for the bank or for a file; posting the others blocks nobody.`
          : ""
      }
      look={{ words: "Look at its files", to: `/file/${batch.id}` }}
      says="The invoices are settled and the ledger is written as of the batch's ledger date. Whoever wishes it is told by mail."
    />
  );
}

/** What the bank confirmed is posted; the rest waits to be ordered. */
function WiredSlip({ batch }: { batch: Listed }) {
  const wires = useWires(batch.id).data;
  if (!wires) return null;
  const open = wires.payments.filter((one) => ["WAITS", "KEPT_BACK", "LISTED"].includes(one.step)).length;
  return (
    <Postable
      batch={batch}
      good={wires.payments
        .filter((one) => one.step === "CONFIRMED")
        .map((one) => ({
          key: one.claim,
          number: one.bankReference,
          payee: one.payee,
          amount: one.amount,
        }))}
      came="was confirmed by the bank and can be posted"
      cameMany="were confirmed by the bank and can be posted"
      caption="Confirmed, not posted"
      waits={
        open > 0
          ? `${open} still ${open === 1 ? "waits" : "wait"} to be ordered or confirmed; posting the others blocks nobody.`
          : ""
      }
      look={{ words: "Look at its wires", to: `/wires/${batch.id}` }}
      says="The invoices are settled and the ledger is written as of the batch's ledger date. Whoever wishes it is told by mail."
    />
  );
}

function PostSlip({ batch }: { batch: Listed }) {
  const printing = usePrinting(batch.id);
  if (!printing.data) return null;
  const sheets = printing.data.runs.flatMap((run) => run.sheets);
  const good = sheets.filter((s) => s.answer === "GOOD" && !s.posted);
  const open = printing.data.unanswered + printing.data.onOwnNumber + printing.data.toNumber;
  return (
    <Postable
      batch={batch}
      good={good.map((sheet) => ({
        key: sheet.document,
        number: String(sheet.number),
        payee: sheet.payee,
        amount: sheet.amount,
      }))}
      came="came out good and can be posted"
      cameMany="came out good and can be posted"
      caption="Good, not posted"
      waits={
        open > 0
          ? `${open} still ${open === 1 ? "waits" : "wait"} at Print; posting the others blocks nobody.`
          : ""
      }
      look={{ words: "Look at the sheets", to: `/print/${batch.id}` }}
      says="The invoices are settled and the ledger is written as of the batch's ledger date; the checks become outstanding, and the bank's next file tells of them where the account has one."
    />
  );
}

/** What of a batch can be posted now, whatever carries it. */
function Postable({
  batch,
  good,
  came,
  cameMany,
  caption,
  waits,
  look,
  says,
}: {
  batch: Listed;
  good: { key: number; number: string; payee: string; amount: string }[];
  came: string;
  cameMany: string;
  caption: string;
  /** What stays behind, as a sentence; empty for nothing. */
  waits: string;
  look: { words: string; to: string };
  /** What posting does. */
  says: string;
}) {
  const session = useSession();
  const navigate = useNavigate();
  const posted = usePosted(batch);
  const [asking, setAsking] = useState(false);
  const what = `${good.length} ${good.length === 1 ? "payment" : "payments"}`;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-base font-bold">{batch.name}</h2>
      <p>
        <b>{what}</b> {good.length === 1 ? came : cameMany}.{waits && ` ${waits}`}
      </p>
      <table className="w-full text-note">
        <caption className="text-faint text-left">{caption}</caption>
        <tbody>
          {good.slice(0, 12).map((one) => (
            <tr key={one.key} className="border-hair border-t">
              <td className="py-1 pr-2 font-mono">{one.number}</td>
              <td className="max-w-44 truncate">{one.payee}</td>
              <td className="text-right">{one.amount}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {good.length > 12 && <p className="text-faint">and {good.length - 12} more</p>}
      <div className="flex gap-2">
        <Button
          look="deed"
          disabled={good.length === 0 || !session.roles.includes("CLERK")}
          onClick={() => setAsking(true)}
        >
          Post {what}…
        </Button>
        <Button onClick={() => navigate(look.to)}>{look.words}</Button>
      </div>
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`Post ${what} of “${batch.name}”`}
        deed={`Post ${what}`}
        run={posted}
      >
        <p>{says}</p>
      </DeedDialog>
    </div>
  );
}
