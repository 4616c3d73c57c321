import { useNavigate } from "react-router";
import { BatchList, type Listed } from "../batches/BatchList";
import { WORKS_AT } from "../batches/leaving";
import { taken, useFiling } from "../electronic/useFiling";
import { Button } from "../parts/Button";
import { useWires } from "../wires/useWires";
import { usePrinting } from "./usePrinting";

/** Approved batches, those whose sheets wait for an answer, and those whose files do. */
export function PrintStation() {
  return (
    <BatchList
      list="print"
      title="Print"
      sentence={
        <>
          Batches that can be printed, filed or ordered, or whose sheets, files or wires wait for an answer.
        </>
      }
      states={["APPROVED", "NUMBERED", "FILED"]}
      which={(batch) => batch.leaves !== "ELSEWHERE"}
      opens={(batch) => WORKS_AT[batch.leaves]}
      empty="Nothing to print, to file or to order. Approved batches appear here."
      slip={(batch) =>
        batch.leaves === "BY_FILE" ? (
          <FileSlip batch={batch} />
        ) : batch.leaves === "FROM_LIST" ? (
          <WireSlip batch={batch} />
        ) : (
          <PrintSlip batch={batch} />
        )
      }
    />
  );
}

function FileSlip({ batch }: { batch: Listed }) {
  const navigate = useNavigate();
  const filing = useFiling(batch.id).data;
  if (!filing) return null;
  const silent = filing.payments.filter((one) => one.step === "IN_FILE").length;
  const ready = taken(filing).length;
  const many = (count: number) => `${count} ${count === 1 ? "payment" : "payments"}`;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-base font-bold">{batch.name}</h2>
      <p>
        {filing.toFile > 0 &&
          `${many(filing.toFile)} can go into a file, ${filing.toFileAmount} from ${filing.accountName}. `}
        {silent > 0 && `Of ${many(silent)} the bank said nothing yet. `}
        {ready > 0 && `The bank took ${many(ready)}: they can be posted. `}
      </p>
      {filing.notSetUp && <p className="text-rust">{filing.notSetUp}</p>}
      <Button look="deed" className="self-start" onClick={() => navigate(`/file/${batch.id}`)}>
        Open its files
      </Button>
    </div>
  );
}

function WireSlip({ batch }: { batch: Listed }) {
  const navigate = useNavigate();
  const wires = useWires(batch.id).data;
  if (!wires) return null;
  const listed = wires.payments.filter((one) => one.step === "LISTED").length;
  const confirmed = wires.payments.filter((one) => one.step === "CONFIRMED").length;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-base font-bold">{batch.name}</h2>
      <p>
        {wires.toList > 0 &&
          `${wires.toList} can go onto the list, ${wires.toListAmount} from ${wires.accountName}. `}
        {listed > 0 &&
          `${listed} ${listed === 1 ? "waits" : "wait"} to be ordered at the bank and confirmed. `}
        {confirmed > 0 && `${confirmed} ${confirmed === 1 ? "is" : "are"} confirmed and can be posted. `}
      </p>
      <Button look="deed" className="self-start" onClick={() => navigate(`/wires/${batch.id}`)}>
        Open its wires
      </Button>
    </div>
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
