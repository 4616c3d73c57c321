import { useNavigate } from "react-router";
import { useAddress } from "../frame/address";
import { Button } from "../parts/Button";
import { clock, shortDate } from "../parts/dates";
import { Download } from "../parts/Download";
import { ChoiceWord } from "../parts/Word";
import { BatchList, type Listed } from "./BatchList";
import type { BatchState } from "./useBatches";

const CHOICES: { value: string; text: string; states: BatchState[] }[] = [
  { value: "going", text: "going on", states: ["DRAFT", "IN_APPROVAL", "APPROVED", "NUMBERED", "FILED"] },
  { value: "drafts", text: "drafts", states: ["DRAFT"] },
  { value: "posted", text: "posted", states: ["POSTED"] },
  { value: "withdrawn", text: "withdrawn", states: ["WITHDRAWN"] },
  { value: "all", text: "of every state", states: [] },
];

/** All batches, by state. */
export function BatchesStation() {
  const [values, change] = useAddress();
  const choice = CHOICES.find((c) => c.value === values.show) ?? CHOICES[0]!;
  return (
    <BatchList
      list="batches"
      // another state is another list, with a cursor of its own
      key={choice.value}
      title="Batches"
      sentence={
        <>
          Batches{" "}
          <ChoiceWord
            name="State"
            text={choice.text}
            value={choice.value}
            choices={CHOICES}
            onChange={(value) => change({ show: value, at: undefined })}
          />
          , newest first. <Download path="/api/batches/csv" />
        </>
      }
      states={choice.states}
      opens={() => "/batches"}
      empty="No batch here. Take invoices at Due and make one."
      slip={(batch) => <BatchSlip batch={batch} />}
    />
  );
}

function BatchSlip({ batch }: { batch: Listed }) {
  const navigate = useNavigate();
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-base font-bold">{batch.name}</h2>
      <p>
        {batch.claims} {batch.claims === 1 ? "claim" : "claims"}, {batch.amount.text} {batch.amount.currency},
        by {batch.by} on {shortDate(batch.checkDate)} from {batch.account}.
      </p>
      <p className="text-faint">
        Prepared by {batch.preparedBy}; last changed {clock(batch.changedAt)}.
      </p>
      {batch.sentBackReason && <p className="callout">Sent back: {batch.sentBackReason}</p>}
      <Button look="deed" className="self-start" onClick={() => navigate(`/batches/${batch.id}`)}>
        Open the batch
      </Button>
    </div>
  );
}
