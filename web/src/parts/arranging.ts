import type { Column } from "./columns";
import type { Arrangement } from "./keptLists";

export type Sorting = "never" | "none" | "ascending" | "descending";
type Columns<R> = Column<R>[];
type Arranged = Arrangement["columns"];

const MOST_FOLDED = 200;
const NARROWEST = 24;
const WIDEST = 2_000;

/** Every column as it stands now, so that what is kept says all of it. */
export function arrangedColumns<R>(columns: Columns<R>, arrangement: Arrangement): Arranged {
  const known = arrangement.columns.filter((one) => columns.some((column) => column.key === one.key));
  const rest = columns.filter((column) => !known.some((one) => one.key === column.key));
  return [...known, ...rest.map((column) => ({ key: column.key, hidden: false }))];
}

export function sortingOf<R>(column: Column<R>, arrangement: Arrangement, whole: boolean): Sorting {
  if (column.quiet || !(whole || column.sorts)) return "never";
  if (arrangement.sortedBy !== column.key) return "none";
  return arrangement.descending ? "descending" : "ascending";
}

/** Ascending, descending, then as the list comes. */
export function nextSort(key: string, now: Arrangement): Partial<Arrangement> {
  if (now.sortedBy !== key) return { sortedBy: key, descending: false };
  return now.descending ? { sortedBy: undefined, descending: false } : { descending: true };
}

export function sized(all: Arranged, key: string, width: number): Arranged {
  const within = Math.min(WIDEST, Math.max(NARROWEST, Math.round(width)));
  return all.map((one) => (one.key === key ? { ...one, width: within } : one));
}

/** One column hidden or shown; the last one that is shown stays. */
export function hidden(all: Arranged, key: string, hide: boolean): Arranged {
  const next = all.map((one) => (one.key === key ? { ...one, hidden: hide } : one));
  return next.some((one) => !one.hidden) ? next : all;
}

export function movedBy(all: Arranged, key: string, by: -1 | 1): Arranged {
  const from = all.findIndex((one) => one.key === key);
  const to = from + by;
  if (from < 0 || to < 0 || to >= all.length) return all;
  const next = [...all];
  [next[from], next[to]] = [next[to]!, next[from]!];
  return next;
}

export function folded(now: Arrangement, key: string, fold: boolean): Partial<Arrangement> {
  const rest = now.folded.filter((one) => one !== key);
  return { folded: (fold ? [...rest, key] : rest).slice(-MOST_FOLDED) };
}
