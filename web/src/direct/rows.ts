import type { Schemas } from "../api/client";

export type TypedRow = Schemas["DirectRow"];

/** True once somebody typed something into a row. */
export function isTyped(row: TypedRow): boolean {
  return [row.vendor, row.said, row.reference, row.amount].some((text) => text.trim() !== "");
}

export const EMPTY: TypedRow = { vendor: "", said: "", reference: "", amount: "" };

/** The row that pays a day of a schedule. */
export function rowOf(day: Schemas["Proposed"]): TypedRow {
  return {
    vendor: day.vendor,
    said: day.said,
    reference: day.reference,
    amount: day.amount.text,
    schedule: day.schedule,
    dueOn: day.dueOn,
  };
}

/** The rows with these days below them, each day once; an empty row at the end makes way. */
export function withDays(rows: TypedRow[], days: Schemas["Proposed"][]): TypedRow[] {
  const typed = rows.filter(isTyped);
  const missing = days.filter(
    (day) => !typed.some((row) => row.schedule === day.schedule && row.dueOn === day.dueOn),
  );
  return [...typed, ...missing.map(rowOf)];
}
