import type { Schemas } from "../api/client";

export type TypedRow = Schemas["OutsideRow"];

/** True once somebody typed something into a row that is not given by the row above. */
export function isTyped(row: TypedRow): boolean {
  return [row.vendor, row.said, row.amount].some((text) => text.trim() !== "");
}

/** The number that follows: the digits at its end count on, as wide as they were. */
export function following(number: string): string {
  return number.replace(/\d+$/, (digits) => String(BigInt(digits) + 1n).padStart(digits.length, "0"));
}

/** The row that is begun below another: of the same day, under the number that follows. */
export function after(row: TypedRow | undefined, today: string): TypedRow {
  return {
    number: row && /\d$/.test(row.number) ? following(row.number) : "",
    paidOn: row?.paidOn || today,
    vendor: "",
    said: "",
    amount: "",
  };
}
