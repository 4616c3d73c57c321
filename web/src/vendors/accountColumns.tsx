import type { Schemas } from "../api/client";
import { longDate, shortDate } from "../parts/dates";
import type { Column } from "../parts/Grid";

type Row = Schemas["AccountRow"];

const REFERENCE: Column<Row> = {
  key: "their-reference",
  title: "Their reference",
  width: "minmax(110px,1fr)",
  cell: (row) => <span className="font-mono text-note">{row.reference}</span>,
};
const MOVEMENTS: Column<Row>[] = [
  {
    key: "in-the-ledger",
    title: "In the ledger",
    width: "122px",
    value: (row) => row.date,
    cell: (row) => longDate(row.date),
  },
  { key: "what", title: "What", width: "minmax(140px,1fr)", cell: (row) => row.words },
  REFERENCE,
  { key: "entry", title: "Entry", width: "70px", right: true, cell: (row) => row.entry },
  { key: "amount", title: "Amount", width: "110px", right: true, cell: (row) => row.amount },
  { key: "owed-then", title: "Owed then", width: "120px", right: true, cell: (row) => row.balance },
];
const ENTRIES: Column<Row>[] = [
  {
    key: "dated",
    title: "Dated",
    width: "118px",
    value: (row) => row.date,
    cell: (row) => longDate(row.date),
  },
  {
    key: "due",
    title: "Due",
    width: "88px",
    value: (row) => row.dueDate,
    cell: (row) => (row.dueDate ? shortDate(row.dueDate) : ""),
  },
  { key: "what", title: "What", width: "96px", cell: (row) => row.words },
  REFERENCE,
  {
    key: "state",
    title: "State",
    width: "minmax(120px,1.2fr)",
    cell: (row) => (
      <span className={row.held ? "text-brass" : ""} title={row.state}>
        {row.state}
      </span>
    ),
  },
  { key: "amount", title: "Amount", width: "100px", right: true, cell: (row) => row.amount },
  { key: "open", title: "Open", width: "100px", right: true, cell: (row) => row.open },
];
const PAYMENTS: Column<Row>[] = [
  {
    key: "check-date",
    title: "Check date",
    width: "122px",
    value: (row) => row.date,
    cell: (row) => longDate(row.date),
  },
  { key: "payment", title: "Payment", width: "minmax(160px,1fr)", cell: (row) => row.words },
  {
    key: "number",
    title: "Number",
    width: "100px",
    cell: (row) => <span className="font-mono text-note">{row.reference}</span>,
  },
  { key: "state", title: "State", width: "110px", cell: (row) => row.state },
  { key: "amount", title: "Amount", width: "120px", right: true, cell: (row) => row.amount },
];

const CURRENCY: Column<Row> = { key: "in", title: "In", width: "48px", cell: (row) => row.currency };

/** The columns of what is shown of an account; amounts stand beside their currencies where it holds several. */
export function columnsOf(show: string, rows: Row[]): Column<Row>[] {
  const columns = show === "ALL" ? MOVEMENTS : show === "PAYMENTS" ? PAYMENTS : ENTRIES;
  if (new Set(rows.map((row) => row.currency)).size < 2) return columns;
  const amount = columns.findIndex((one) => one.key === "amount");
  return [...columns.slice(0, amount), CURRENCY, ...columns.slice(amount)];
}
