import { isValidElement, type ReactNode } from "react";

export interface Column<R> {
  /** Names it in what is kept of a list, and to a server that sorts by it. */
  key: string;
  title: string;
  /** The title is read aloud, not shown. */
  quiet?: boolean;
  /** A CSS grid track, such as `90px` or `1fr`. */
  width: string;
  right?: boolean;
  cell: (row: R) => ReactNode;
  /** What it is sorted by, where that is not what the cell says: the day itself, not its words. */
  value?: (row: R) => string | number | null | undefined;
  /** What the cell says, where its words are not to be found in what it shows. */
  words?: (row: R) => string;
  /** The server sorts by it, because only a part of the list is here. */
  sorts?: boolean;
}

/** Either a heading over rows, or a row. */
export type Item<R> = { heading: ReactNode; key: string } | { row: R; key: string };

/** A list whose rows may be still on their way; `at` is undefined for those. */
export interface Rows<R> {
  length: number;
  at: (index: number) => Item<R> | undefined;
  key: (index: number) => string;
  isRow: (index: number) => boolean;
  indexOf: (key: string) => number;
}

export function rowsOf<R>(items: Item<R>[]): Rows<R> {
  const places = new Map(items.map((item, i) => [item.key, i]));
  return {
    length: items.length,
    at: (i) => items[i],
    key: (i) => items[i]?.key ?? "",
    isRow: (i) => items[i] !== undefined && "row" in items[i],
    indexOf: (key) => places.get(key) ?? -1,
  };
}

/** The rows without those under a folded heading. */
export function withoutFolded<R>(
  rows: Rows<R>,
  folded: Set<string>,
): Rows<R> & { from: (at: number) => number } {
  if (folded.size === 0) return { ...rows, from: (at) => at };
  const shown: number[] = [];
  let under = false;
  for (let i = 0; i < rows.length; i++) {
    const isRow = rows.isRow(i);
    if (!isRow) under = folded.has(rows.key(i));
    if (!isRow || !under) shown.push(i);
  }
  const places = new Map(shown.map((from, i) => [from, i]));
  return {
    length: shown.length,
    at: (i) => (shown[i] === undefined ? undefined : rows.at(shown[i])),
    key: (i) => (shown[i] === undefined ? "" : rows.key(shown[i])),
    isRow: (i) => shown[i] !== undefined && rows.isRow(shown[i]),
    indexOf: (key) => places.get(rows.indexOf(key)) ?? -1,
    from: (at) => shown[at] ?? at,
  };
}

/** The words of what is shown, whatever they are set in. */
function textOf(node: ReactNode): string {
  if (typeof node === "string" || typeof node === "number") return String(node);
  if (Array.isArray(node)) return node.map(textOf).join("");
  return isValidElement<{ children?: ReactNode }>(node) ? textOf(node.props.children) : "";
}

/** What a cell says in plain words. */
export function wordsOf<R>(column: Column<R>, row: R): string {
  return column.words ? column.words(row) : textOf(column.cell(row)).trim();
}

const FIGURES = /^-?[\d,]+(\.\d+)?$/;

/** What a row is sorted by: figures by their size, everything else as words; what says nothing comes last. */
export function sortKey<R>(column: Column<R>, row: R): string | number | undefined {
  const value = column.value ? column.value(row) : wordsOf(column, row);
  if (value === null || value === undefined || value === "" || value === "–") return undefined;
  return typeof value === "string" && column.right && FIGURES.test(value)
    ? Number(value.replaceAll(",", ""))
    : value;
}

const words = new Intl.Collator("en", { sensitivity: "base", numeric: true });

export function inOrder(a: string | number | undefined, b: string | number | undefined): number {
  return typeof a === "number" && typeof b === "number" ? a - b : words.compare(String(a), String(b));
}

/** A cell that no spreadsheet takes for a formula; plain numbers stay numbers. */
function cellOf(text: string): string {
  const harmless = /^[=+\-@\t\r]/.test(text) && !FIGURES.test(text) ? `'${text}` : text;
  return /[",\n\r;]/.test(harmless) ? `"${harmless.replaceAll('"', '""')}"` : harmless;
}

/** Rows as CSV under the titles of their columns. */
export function csvOf<R>(columns: Column<R>[], rows: R[]): string {
  return [
    columns.map((column) => cellOf(column.title)),
    ...rows.map((row) => columns.map((column) => cellOf(wordsOf(column, row)))),
  ]
    .map((cells) => cells.join(","))
    .join("\r\n");
}
