import type { ReactNode } from "react";
import { Loaded } from "../parts/Loaded";
import { useNavigate } from "react-router";
import type { Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { Grid, type Column } from "../parts/Grid";
import { BATCH_COLUMNS, useBatches, type BatchState } from "./useBatches";

export type Listed = Schemas["ListedView"];

/** A station whose list is batches in some states; what the slip says of the one under the cursor is the station's own. */
export function BatchList({
  title,
  sentence,
  states,
  columns = BATCH_COLUMNS,
  list,
  opens,
  empty,
  slip,
  strip,
}: {
  title: string;
  sentence: ReactNode;
  states: BatchState[];
  columns?: Column<Listed>[];
  /** The name its columns are kept under. */
  list: string;
  /** The view Enter opens, such as `/print`. */
  opens: string;
  empty: string;
  slip: (batch: Listed) => ReactNode;
  strip?: (batch: Listed) => ReactNode;
}) {
  const [values, change] = useAddress();
  const navigate = useNavigate();
  const batches = useBatches(states);
  const cursor = values.at ?? (batches.data?.length === 1 ? String(batches.data[0]!.id) : undefined);
  const at = batches.data?.find((batch) => String(batch.id) === cursor);
  return (
    <Station
      title={title}
      sentence={sentence}
      answer={
        batches.data && (
          <Figure value={batches.data.length}>{batches.data.length === 1 ? "batch" : "batches"}</Figure>
        )
      }
      list={
        <Loaded query={batches}>
          {(rows) => (
            <Grid
              list={list}
              label={title}
              items={rows.map((row) => ({ key: String(row.id), row }))}
              columns={columns}
              cursor={cursor}
              onCursor={(key) => change({ at: key })}
              onEnter={(key) => navigate(`${opens}/${key}`)}
              empty={empty}
            />
          )}
        </Loaded>
      }
      slip={at ? slip(at) : <p className="text-faint">Move the cursor onto a batch. Enter opens it.</p>}
      strip={at && strip?.(at)}
    />
  );
}
