import { useNavigate } from "react-router";
import { BATCH_COLUMNS, useBatches } from "../batches/BatchesStation";
import { useAddress } from "../frame/address";
import { Figure, Skeleton, Station, Trouble } from "../frame/Station";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import { Grid, type Column } from "../parts/Grid";
import type { Schemas } from "../api/client";

const WAITING: Column<Schemas["ListedView"]>[] = [
  ...BATCH_COLUMNS.filter((column) => column.title !== "State"),
  { title: "Asked by", width: "120px", cell: (b) => b.preparedBy },
  { title: "Since", width: "100px", cell: (b) => (b.sentAt ? clock(b.sentAt) : "") },
];

/** What waits for an approver. */
export function ApprovalStation() {
  const [values, change] = useAddress();
  const navigate = useNavigate();
  const list = useBatches(["IN_APPROVAL"]);
  const cursor = values.at;
  const at = list.data?.find((b) => String(b.id) === cursor);
  return (
    <Station
      title="Approval"
      sentence={<>Batches that wait for approval, newest first.</>}
      answer={list.data && <Figure value={list.data.length}>waiting</Figure>}
      list={
        list.error ? (
          <Trouble error={list.error} />
        ) : !list.data ? (
          <Skeleton />
        ) : (
          <Grid
            label="Waiting for approval"
            items={list.data.map((row) => ({ key: String(row.id), row }))}
            columns={WAITING}
            cursor={cursor}
            onCursor={(key) => change({ at: key })}
            onEnter={(key) => navigate(`/batches/${key}`)}
            empty="Nothing waits for approval. What clerks send appears here."
          />
        )
      }
      slip={
        at ? (
          <div className="flex flex-col gap-3">
            <h2 className="text-base font-bold">{at.name}</h2>
            <p>
              {at.preparedBy} asks for {at.amount.text} {at.amount.currency} in {at.claims}{" "}
              {at.claims === 1 ? "payment" : "payments"}.
            </p>
            <Button look="deed" className="self-start" onClick={() => navigate(`/batches/${at.id}`)}>
              Look at it
            </Button>
          </div>
        ) : (
          <p className="text-faint">Move the cursor onto a batch. Enter opens it.</p>
        )
      }
    />
  );
}
