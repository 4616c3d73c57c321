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
  which = () => true,
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
  /** Those of them that are listed, where not all are. */
  which?: (batch: Listed) => boolean;
  columns?: Column<Listed>[];
  /** The name its columns are kept under. */
  list: string;
  /** The view Enter opens of a batch. */
  opens: (batch: Listed) => string;
  empty: string;
  slip: (batch: Listed) => ReactNode;
  strip?: (batch: Listed) => ReactNode;
}) {
  const [values, change] = useAddress();
  const navigate = useNavigate();
  const batches = useBatches(states);
  const listed = batches.data?.filter(which);
  const cursor = values.at ?? (listed?.length === 1 ? String(listed[0]!.id) : undefined);
  const at = listed?.find((batch) => String(batch.id) === cursor);
  return (
    <Station
      title={title}
      sentence={sentence}
      answer={listed && <Figure value={listed.length}>{listed.length === 1 ? "batch" : "batches"}</Figure>}
      list={
        <Loaded query={batches}>
          {(rows) => (
            <Grid
              list={list}
              label={title}
              items={rows.filter(which).map((row) => ({ key: String(row.id), row }))}
              columns={columns}
              cursor={cursor}
              onCursor={(key) => change({ at: key })}
              onEnter={(key) => {
                const batch = rows.find((row) => String(row.id) === key);
                if (batch) navigate(`${opens(batch)}/${key}`);
              }}
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
