import type { KeyboardEvent, MouseEvent } from "react";
import { singleKeys } from "./singleKeys";

/** What a list lets keys and mouse do; places are counted with the headings. */
export interface ListMoves {
  /** The place of the cursor; -1 where there is none. */
  at: number;
  length: number;
  /** Rows that fit into view. */
  page: number;
  /** Whether the cursor may stand here: on a row, or on the heading of a folded group. */
  stands: (index: number) => boolean;
  isRow: (index: number) => boolean;
  key: (index: number) => string;
  go: (index: number, extend: boolean) => void;
  fold: (index: number) => void;
  unfold: (index: number) => void;
  selected: Set<string> | undefined;
  onSelect: ((keys: Set<string>) => void) | undefined;
  onSpace: ((keys: string[], cursor: string) => void) | undefined;
  onEnter: ((key: string) => void) | undefined;
  onDigit: ((key: string, digit: string) => void) | undefined;
  onKey: ((key: string, cursor: string) => void) | undefined;
}

export function step(list: ListMoves, from: number, by: number): number {
  let next = Math.max(0, Math.min(list.length - 1, from + by));
  const direction = by < 0 ? -1 : 1;
  while (next >= 0 && next < list.length && !list.stands(next)) next += direction;
  return list.stands(next) ? next : from;
}

export function keysBetween(list: ListMoves, a: number, b: number): Set<string> {
  const keys = new Set<string>();
  for (let i = Math.min(a, b); i <= Math.max(a, b); i++) if (list.isRow(i)) keys.add(list.key(i));
  return keys;
}

/** Arrows and pages move; left folds the group of the cursor, right unfolds it. */
function moved(list: ListMoves, event: KeyboardEvent): boolean {
  const moves: Record<string, () => number> = {
    ArrowDown: () => step(list, list.at, 1),
    ArrowUp: () => step(list, list.at, -1),
    PageDown: () => step(list, list.at, list.page),
    PageUp: () => step(list, list.at, -list.page),
    Home: () => step(list, -1, 1),
    End: () => step(list, list.length, -1),
  };
  const move = moves[event.key];
  if (move) list.go(move(), event.shiftKey);
  else if (event.key === "ArrowLeft" && list.isRow(list.at)) list.fold(list.at);
  else if ((event.key === "ArrowRight" || event.key === "Enter") && list.at >= 0 && !list.isRow(list.at))
    list.unfold(list.at);
  else return false;
  return true;
}

/** Space, Enter and single keys act on what is selected, or on the cursor's row. */
function acted(list: ListMoves, event: KeyboardEvent): boolean {
  const { selected, onSelect } = list;
  const cursor = list.isRow(list.at) ? list.key(list.at) : undefined;
  const held = event.ctrlKey || event.metaKey;
  const single = !held && !event.altKey && singleKeys();
  if (event.key === " " && cursor && list.onSpace)
    list.onSpace(selected?.has(cursor) ? [...selected] : [cursor], cursor);
  else if (event.key === "Enter" && cursor && list.onEnter) list.onEnter(cursor);
  else if (event.key === "Escape" && selected?.size && onSelect) onSelect(new Set());
  else if (event.key === "a" && held && onSelect) onSelect(keysBetween(list, 0, list.length - 1));
  else if (single && /^[0-9]$/.test(event.key) && cursor && list.onDigit) list.onDigit(cursor, event.key);
  else if (single && /^[a-z+-]$/.test(event.key) && cursor && list.onKey) list.onKey(event.key, cursor);
  else return false;
  return true;
}

export function pressed(list: ListMoves, event: KeyboardEvent): void {
  if (moved(list, event)) event.preventDefault();
  else if (event.repeat) {
    // held down, a key moves and does nothing else
    if (event.key === " ") event.preventDefault();
  } else if (acted(list, event)) event.preventDefault();
}

/** A click chooses its row alone, with Ctrl beside the others, with Shift up to it. */
export function clicked(list: ListMoves, event: MouseEvent, index: number): void {
  if (!list.isRow(index)) return;
  if (!event.shiftKey && list.onSelect) {
    const key = list.key(index);
    const beside = event.ctrlKey || event.metaKey;
    const next = new Set(beside ? list.selected : []);
    if (beside && next.has(key)) next.delete(key);
    else next.add(key);
    list.onSelect(next);
  }
  list.go(index, event.shiftKey);
}
