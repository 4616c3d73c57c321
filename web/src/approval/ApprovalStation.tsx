import { useNavigate } from "react-router";
import { BatchList, type Listed } from "../batches/BatchList";
import { BATCH_COLUMNS } from "../batches/useBatches";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import type { Column } from "../parts/Grid";

const WAITING: Column<Listed>[] = [
  ...BATCH_COLUMNS.filter((column) => column.title !== "State"),
  { title: "Asked by", width: "120px", cell: (b) => b.preparedBy },
  { title: "Since", width: "100px", cell: (b) => (b.sentAt ? clock(b.sentAt) : "") },
];

/** What waits for an approver. */
export function ApprovalStation() {
  const navigate = useNavigate();
  return (
    <BatchList
      title="Approval"
      sentence={<>Batches that wait for approval, newest first.</>}
      states={["IN_APPROVAL"]}
      columns={WAITING}
      opens="/batches"
      empty="Nothing waits for approval. What clerks send appears here."
      slip={(batch) => (
        <div className="flex flex-col gap-3">
          <h2 className="text-base font-bold">{batch.name}</h2>
          <p>
            {batch.preparedBy} asks for {batch.amount.text} {batch.amount.currency} in {batch.claims}{" "}
            {batch.claims === 1 ? "payment" : "payments"}.
          </p>
          <Button look="deed" className="self-start" onClick={() => navigate(`/batches/${batch.id}`)}>
            Look at it
          </Button>
        </div>
      )}
    />
  );
}
