import { useNavigate } from "react-router";
import { BATCH_COLUMNS, useBatches } from "../batches/BatchesStation";
import { useAddress } from "../frame/address";
import { Figure, Skeleton, Station, Trouble } from "../frame/Station";
import { Button } from "../parts/Button";
import { Grid } from "../parts/Grid";
import { usePrinting } from "./usePrinting";

/** Approved batches, and those whose sheets wait for an answer. */
export function PrintStation() {
  const [values, change] = useAddress();
  const navigate = useNavigate();
  const list = useBatches(["APPROVED", "NUMBERED"]);
  const cursor = values.at;
  const at = list.data?.find((b) => String(b.id) === cursor);
  const printing = usePrinting(at?.id);
  return (
    <Station
      title="Print"
      sentence={<>Batches that can be printed, or whose sheets wait for an answer.</>}
      answer={
        list.data && <Figure value={list.data.length}>{list.data.length === 1 ? "batch" : "batches"}</Figure>
      }
      list={
        list.error ? (
          <Trouble error={list.error} />
        ) : !list.data ? (
          <Skeleton />
        ) : (
          <Grid
            label="Batches to print"
            items={list.data.map((row) => ({ key: String(row.id), row }))}
            columns={BATCH_COLUMNS}
            cursor={cursor}
            onCursor={(key) => change({ at: key })}
            onEnter={(key) => navigate(`/print/${key}`)}
            empty="Nothing to print. Approved batches appear here."
          />
        )
      }
      slip={
        at && printing.data ? (
          <div className="flex flex-col gap-3">
            <h2 className="text-base font-bold">{at.name}</h2>
            <p>
              {printing.data.toNumber > 0 &&
                `${printing.data.toNumber} ${printing.data.toNumber === 1 ? "payment needs its number" : "payments need their numbers"}, ${printing.data.toNumberAmount} from ${printing.data.accountName}. `}
              {printing.data.unanswered > 0 && `${printing.data.unanswered} sheets wait for an answer. `}
              {printing.data.blanks > 0 &&
                `${printing.data.blanks} stayed blank and print on their own number. `}
            </p>
            {printing.data.turn && (
              <p className="text-brass">
                {printing.data.turn.mine ? "You have" : `${printing.data.turn.holder} has`} the turn to print
                from {printing.data.accountName}.
              </p>
            )}
            <Button look="deed" className="self-start" onClick={() => navigate(`/print/${at.id}`)}>
              Open printing
            </Button>
          </div>
        ) : (
          <p className="text-faint">Move the cursor onto a batch. Enter opens its printing.</p>
        )
      }
    />
  );
}
