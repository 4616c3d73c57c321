import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { longDate, shortDate } from "../parts/dates";
import { Grid, type Column } from "../parts/Grid";

type Undone = Schemas["UndoneView"];

const COLUMNS: Column<Undone>[] = [
  { key: "what", title: "What", width: "118px", cell: (one) => one.name },
  { key: "payee", title: "Payee", width: "minmax(140px,1.4fr)", cell: (one) => one.payee },
  {
    key: "check-date",
    title: "Check date",
    width: "96px",
    value: (one) => one.checkDate,
    cell: (one) => shortDate(one.checkDate),
  },
  { key: "amount", title: "Amount", width: "98px", right: true, cell: (one) => one.amount.text },
  {
    key: "dated",
    title: "Undone",
    width: "126px",
    value: (one) => one.date,
    cell: (one) => longDate(one.date),
  },
  {
    key: "becomes",
    title: "What it paid",
    width: "minmax(160px,1.6fr)",
    words: (one) => one.refused ?? becomes(one),
    cell: (one) => (one.refused ? <span className="text-rust">{one.refused}</span> : becomes(one)),
  },
];

/** How many of what it paid become what. */
function becomes(one: Undone): string {
  const counts = new Map<string, number>();
  one.items.forEach((item) => counts.set(item.becomes, (counts.get(item.becomes) ?? 0) + 1));
  return [...counts].map(([words, count]) => `${count} ${words}`).join(", ");
}

/** Payments that are to be undone together, each with its own effect. */
export function UndoneList({
  payments,
  cursor,
  onCursor,
  onKey,
  empty,
}: {
  payments: Undone[];
  cursor?: string;
  onCursor: (key: string) => void;
  onKey?: (key: string, cursor: string) => void;
  empty: ReactNode;
}) {
  return (
    <Grid
      list="undoing"
      label="What is undone"
      items={payments.map((row) => ({ key: String(row.payment), row }))}
      columns={COLUMNS}
      cursor={cursor}
      onCursor={onCursor}
      onKey={onKey}
      empty={empty}
    />
  );
}
