import { useNavigate } from "react-router";
import { BatchList, type Listed } from "../batches/BatchList";
import { Button } from "../parts/Button";
import { usePrinting } from "./usePrinting";

/** Approved batches, and those whose sheets wait for an answer. */
export function PrintStation() {
  return (
    <BatchList
      list="print"
      title="Print"
      sentence={<>Batches that can be printed, or whose sheets wait for an answer.</>}
      states={["APPROVED", "NUMBERED"]}
      which={(batch) => !batch.elsewhere}
      opens="/print"
      empty="Nothing to print. Approved batches appear here."
      slip={(batch) => <PrintSlip batch={batch} />}
    />
  );
}

function PrintSlip({ batch }: { batch: Listed }) {
  const navigate = useNavigate();
  const printing = usePrinting(batch.id).data;
  if (!printing) return null;
  const { toNumber, unanswered, onOwnNumber, turn } = printing;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-base font-bold">{batch.name}</h2>
      <p>
        {toNumber > 0 &&
          `${toNumber} ${toNumber === 1 ? "payment needs its number" : "payments need their numbers"}, ${printing.toNumberAmount} from ${printing.accountName}. `}
        {unanswered > 0 &&
          `${unanswered} ${unanswered === 1 ? "sheet waits" : "sheets wait"} for an answer. `}
        {onOwnNumber > 0 &&
          `${onOwnNumber} ${onOwnNumber === 1 ? "sheet prints on its own number" : "sheets print on their own numbers"}. `}
        {toNumber + unanswered + onOwnNumber === 0 && "Every sheet is answered; what is good can be posted."}
      </p>
      {turn && (
        <p className="text-brass">
          {turn.mine ? "You have" : `${turn.holder} has`} the turn to print from {printing.accountName}.
        </p>
      )}
      <Button look="deed" className="self-start" onClick={() => navigate(`/print/${batch.id}`)}>
        Open printing
      </Button>
    </div>
  );
}
