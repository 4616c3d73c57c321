import type { Schemas } from "../api/client";
import { Amount } from "../workline/Amount";
import { waited } from "../parts/dates";
import type { Column, Item } from "../parts/Grid";

export type Waiting = Schemas["WaitingBatch"];

export type Change = Schemas["ChangeView"];

export type Undoing = Schemas["UndoingView"];

type Row =
  | { batch: Waiting; change?: undefined; undoing?: undefined }
  | { batch?: undefined; change: Change; undoing?: undefined }
  | { batch?: undefined; change?: undefined; undoing: Undoing };

/** What waits under one heading; nothing where nothing does. */
export function group(
  key: string,
  title: string,
  batches: Waiting[],
  changes: Change[],
  undoings: Undoing[],
): Item<Row>[] {
  if (batches.length + changes.length + undoings.length === 0) return [];
  return [
    { key, heading: <b>{title}</b> },
    ...batches.map((batch) => ({ key: `b${batch.id}`, row: { batch } })),
    ...undoings.map((undoing) => ({ key: `u${undoing.id}`, row: { undoing } })),
    ...changes.map((change) => ({ key: `c${change.id}`, row: { change } })),
  ];
}

const NAME: Column<Row> = {
  key: "what",
  title: "What",
  width: "minmax(160px,1.8fr)",
  cell: (row) =>
    row.batch ? (
      <>
        {row.batch.name}
        {row.batch.round > 1 && <span className="text-faint text-note"> · sent again</span>}
      </>
    ) : row.change ? (
      `${row.change.vendorName}: ${row.change.what}`
    ) : (
      `${row.undoing.asksTo} ${row.undoing.names.join("; ")}${row.undoing.count > row.undoing.names.length ? " …" : ""}`
    ),
};

const amountOf = (row: Row) =>
  row.batch ? row.batch.amount : row.undoing?.amounts.length === 1 ? row.undoing.amounts[0] : undefined;

const AMOUNT: Column<Row> = {
  key: "amount",
  title: "Amount",
  width: "110px",
  right: true,
  words: (row) => amountOf(row)?.text ?? "",
  cell: (row) => {
    const amount = amountOf(row);
    return amount && <Amount of={amount} />;
  },
};

const since = (row: Row): string =>
  row.batch ? (row.batch.since ?? row.batch.sentAt) : row.change ? row.change.proposedAt : row.undoing.at;

export const columns = (now: string): Column<Row>[] => [
  NAME,
  {
    key: "step",
    title: "Step",
    width: "minmax(160px,1.3fr)",
    cell: (row) =>
      row.batch
        ? `${row.batch.stepName}${row.batch.steps > 1 ? `, ${row.batch.step} of ${row.batch.steps}` : ""}`
        : "second person",
  },
  {
    key: "marked",
    title: "Marked",
    width: "60px",
    right: true,
    cell: (row) =>
      row.batch && row.batch.marked > 0 ? (
        <span className="text-brass font-semibold">{row.batch.marked}</span>
      ) : (
        ""
      ),
  },
  {
    key: "payments",
    title: "Payments",
    width: "66px",
    right: true,
    cell: (row) => row.batch?.claims ?? row.undoing?.count ?? "",
  },
  AMOUNT,
  {
    key: "asked-by",
    title: "Asked by",
    width: "112px",
    cell: (row) => (row.batch ? row.batch.sentBy : row.change ? row.change.proposedBy : row.undoing.who),
  },
  {
    key: "waits",
    title: "Waits",
    width: "64px",
    right: true,
    value: since,
    cell: (row) => waited(since(row), now),
  },
];

export const NARROW = [NAME, { ...AMOUNT, width: "96px" }];
