import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { toast } from "sonner";
import { api, call } from "../api/client";
import { BatchList, type Listed } from "../batches/BatchList";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { usePrinting } from "../printing/usePrinting";
import { LevelStrip } from "../proof/LevelStrip";

/** Numbered batches: what came out good is posted, the rest waits; and what was made elsewhere, once it is agreed to. */
export function PostStation() {
  return (
    <BatchList
      list="post"
      title="Post"
      sentence={<>Batches with their numbers, or made elsewhere and agreed to, to be posted.</>}
      states={["NUMBERED", "APPROVED"]}
      which={(batch) => batch.state === "NUMBERED" || batch.elsewhere}
      opens="/print"
      empty="Nothing to post. Batches come here when their checks are printed, or when what they record is agreed to."
      slip={(batch) => (batch.elsewhere ? <ElsewhereSlip batch={batch} /> : <PostSlip batch={batch} />)}
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

function PostSlip({ batch }: { batch: Listed }) {
  const session = useSession();
  const navigate = useNavigate();
  const posted = usePosted(batch);
  const [asking, setAsking] = useState(false);
  const printing = usePrinting(batch.id);
  if (!printing.data) return null;
  const sheets = printing.data.runs.flatMap((run) => run.sheets);
  const good = sheets.filter((s) => s.answer === "GOOD" && !s.posted);
  const open = printing.data.unanswered + printing.data.onOwnNumber + printing.data.toNumber;
  const what = `${good.length} ${good.length === 1 ? "payment" : "payments"}`;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-base font-bold">{batch.name}</h2>
      <p>
        <b>{what}</b> came out good and can be posted.
        {open > 0 &&
          ` ${open} still ${open === 1 ? "waits" : "wait"} at Print; posting the others blocks nobody.`}
      </p>
      <table className="w-full text-note">
        <caption className="text-faint text-left">Good, not posted</caption>
        <tbody>
          {good.slice(0, 12).map((sheet) => (
            <tr key={sheet.document} className="border-hair border-t">
              <td className="py-1 pr-2 font-mono">{sheet.number}</td>
              <td className="max-w-44 truncate">{sheet.payee}</td>
              <td className="text-right">{sheet.amount}</td>
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
        <Button onClick={() => navigate(`/print/${batch.id}`)}>Look at the sheets</Button>
      </div>
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`Post ${what} of “${batch.name}”`}
        deed={`Post ${what}`}
        run={posted}
      >
        <p>
          The invoices are settled and the ledger is written as of the batch's ledger date; the checks become
          outstanding, and the bank's next file tells of them where the account has one.
        </p>
      </DeedDialog>
    </div>
  );
}
