import { useRef, type RefObject } from "react";
import { folded } from "./arranging";
import type { Rows } from "./columns";
import type { GridProps } from "./Grid";
import type { Arrangement } from "./keptLists";
import { keysBetween, type ListMoves } from "./listKeys";

const USUAL_HEIGHT = 400;

interface Where<R> extends GridProps<R> {
  rows: Rows<R>;
  at: number;
  foldedNow: Set<string>;
  arrangement: Arrangement;
  arrange: (next: Partial<Arrangement>) => void;
  height: number;
  scroller: RefObject<HTMLDivElement | null>;
  /** Brings a place into view, where the cursor goes to a row of this key. */
  show: (index: number, key?: string) => void;
  onRest: (heading: string | undefined) => void;
}

/** Where the cursor may go in a list, and what going there does. */
export function useMoves<R>(list: Where<R>): ListMoves {
  const { rows, at, selected, onSelect, foldedNow, arrangement, arrange, onRest } = list;
  const anchor = useRef<number>(-1);
  const moves: ListMoves = {
    at,
    length: rows.length,
    page: Math.max(1, Math.floor((list.scroller.current?.clientHeight ?? USUAL_HEIGHT) / list.height) - 1),
    isRow: rows.isRow,
    stands: (index) => rows.isRow(index) || foldedNow.has(rows.key(index)),
    key: rows.key,
    go: (index, extend) => {
      if (!moves.stands(index)) return;
      if (!rows.isRow(index)) {
        onRest(rows.key(index));
        list.show(index);
      } else {
        if (extend && onSelect) {
          if (anchor.current < 0) anchor.current = at < 0 ? index : at;
          onSelect(keysBetween(moves, anchor.current, index));
        } else {
          anchor.current = index;
        }
        onRest(undefined);
        list.onCursor(rows.key(index));
        list.show(index, rows.key(index));
      }
    },
    fold: (index) => {
      let heading = index;
      while (heading >= 0 && rows.isRow(heading)) heading--;
      if (heading < 0) return;
      arrange(folded(arrangement, rows.key(heading), true));
      onRest(rows.key(heading));
    },
    unfold: (index) => arrange(folded(arrangement, rows.key(index), false)),
    selected,
    onSelect,
    onSpace: list.onSpace,
    onEnter: list.onEnter,
    onDigit: list.onDigit,
    onKey: list.onKey,
  };
  return moves;
}
