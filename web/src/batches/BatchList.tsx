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
  opens,
  empty,
  slip,
  strip,
}: {
  title: string;
  sentence: ReactNode;
  states: BatchState[];
  columns?: Column<Listed>[];
  /** The view Enter opens, such as `/print`. */
  opens: string;
  empty: string;
  slip: (batch: Listed) => ReactNode;
  strip?: (batch: Listed) => ReactNode;
}) {
  const [values, change] = useAddress();
  const navigate = useNavigate();
  const list = useBatches(states);
  const cursor = values.at ?? (list.data?.length === 1 ? String(list.data[0]!.id) : undefined);
  const at = list.data?.find((batch) => String(batch.id) === cursor);
  return (
    <Station
      title={title}
      sentence={sentence}
      answer={
        list.data && <Figure value={list.data.length}>{list.data.length === 1 ? "batch" : "batches"}</Figure>
      }
      list={
        <Loaded query={list}>
          {(batches) => (
            <Grid
              label={title}
              items={batches.map((row) => ({ key: String(row.id), row }))}
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
