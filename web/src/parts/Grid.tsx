import { useVirtualizer, defaultRangeExtractor } from "@tanstack/react-virtual";
import type { CSSProperties, KeyboardEvent, MouseEvent, ReactNode } from "react";
import { useCallback, useEffect, useId, useMemo, useRef } from "react";
import { singleKeys } from "./singleKeys";

export interface Column<R> {
  title: string;
  /** The title is read aloud, not shown. */
  quiet?: boolean;
  /** A CSS grid track, such as `90px` or `1fr`. */
  width: string;
  right?: boolean;
  cell: (row: R) => ReactNode;
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

function rowsOf<R>(items: Item<R>[]): Rows<R> {
  const places = new Map(items.map((item, i) => [item.key, i]));
  return {
    length: items.length,
    at: (i) => items[i],
    key: (i) => items[i]?.key ?? "",
    isRow: (i) => items[i] !== undefined && "row" in items[i],
    indexOf: (key) => places.get(key) ?? -1,
  };
}

export interface GridProps<R> {
  label: string;
  items: Item<R>[] | Rows<R>;
  columns: Column<R>[];
  cursor: string | undefined;
  onCursor: (key: string) => void;
  selected?: Set<string>;
  onSelect?: (keys: Set<string>) => void;
  /** Space: sets all selected rows, or the cursor's, to the new state of the cursor's row. */
  onSpace?: (keys: string[], cursor: string) => void;
  onEnter?: (key: string) => void;
  onDigit?: (key: string, digit: string) => void;
  /** Any other single key, for commands of one list; it can be switched off with the others. */
  onKey?: (key: string, cursor: string) => void;
  /** The places that are seen, so that what is missing can be brought. */
  onRange?: (first: number, last: number) => void;
  dim?: (row: R) => boolean;
  empty: ReactNode;
  /** Called near the end, to load more. */
  onEnd?: () => void;
}

const ROW = 30;

/** A list of any length: one tab stop, a cursor, a selection, rows drawn only where they are seen. */
export function Grid<R>(props: GridProps<R>) {
  const { columns, cursor, selected, onCursor, onSelect, onEnd, onRange } = props;
  const given = props.items;
  const items = useMemo(() => (Array.isArray(given) ? rowsOf(given) : given), [given]);
  const scroller = useRef<HTMLDivElement>(null);
  const pointing = useRef(false);
  const anchor = useRef<number>(-1);
  const id = useId();
  const tracks = columns.map((column) => column.width).join(" ");
  const at = cursor === undefined ? -1 : items.indexOf(cursor);
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    // the headings lie over the first of what is scrolled
    scrollMargin: ROW,
    scrollPaddingStart: ROW,
    overscan: 12,
    // the row with the cursor is never unmounted
    rangeExtractor: useCallback(
      (range: Parameters<typeof defaultRangeExtractor>[0]) => {
        const seen = defaultRangeExtractor(range);
        return at < 0 || seen.includes(at) ? seen : [...seen, at].sort((a, b) => a - b);
      },
      [at],
    ),
  });
  const seen = virtual.getVirtualItems();
  // what is seen; the cursor's row is drawn wherever it is and does not count
  const first = virtual.range?.startIndex ?? 0;
  const last = virtual.range?.endIndex ?? 0;
  useEffect(() => onRange?.(first, last), [first, last, onRange]);
  // a cursor from the address, or one set from beside the list, is brought into view
  const shown = useRef<string | undefined>(undefined);
  useEffect(() => {
    if (cursor !== shown.current && at >= 0) {
      virtual.scrollToIndex(at, { align: "auto" });
      shown.current = cursor;
    }
  }, [cursor, at, virtual]);
  useEffect(() => {
    if (onEnd && items.length > 0 && last >= items.length - 20) onEnd();
  }, [last, items.length, onEnd]);

  const isRow = (index: number) => items.isRow(index);
  const step = (from: number, by: number): number => {
    let next = Math.max(0, Math.min(items.length - 1, from + by));
    const direction = by < 0 ? -1 : 1;
    while (next >= 0 && next < items.length && !isRow(next)) next += direction;
    return isRow(next) ? next : from;
  };
  const keysBetween = (a: number, b: number) => {
    const keys = new Set<string>();
    for (let i = Math.min(a, b); i <= Math.max(a, b); i++) if (isRow(i)) keys.add(items.key(i));
    return keys;
  };
  const go = (index: number, extend: boolean) => {
    if (!isRow(index)) return;
    if (extend && onSelect) {
      if (anchor.current < 0) anchor.current = at < 0 ? index : at;
      onSelect(keysBetween(anchor.current, index));
    } else {
      anchor.current = index;
    }
    shown.current = items.key(index);
    onCursor(items.key(index));
    virtual.scrollToIndex(index);
  };

  const onKeyDown = (event: KeyboardEvent) => {
    const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 400) / ROW) - 1);
    const moves: Record<string, () => number> = {
      ArrowDown: () => step(at, 1),
      ArrowUp: () => step(at, -1),
      PageDown: () => step(at, page),
      PageUp: () => step(at, -page),
      Home: () => step(-1, 1),
      End: () => step(items.length, -1),
    };
    const move = moves[event.key];
    if (move) {
      event.preventDefault();
      go(move(), event.shiftKey);
    } else if (event.repeat) {
      // held down, a key moves and does nothing else
      if (event.key === " ") event.preventDefault();
    } else if (event.key === " " && cursor && props.onSpace) {
      event.preventDefault();
      const many = selected && selected.has(cursor) ? [...selected] : [cursor];
      props.onSpace(many, cursor);
    } else if (event.key === "Enter" && cursor && props.onEnter) {
      event.preventDefault();
      props.onEnter(cursor);
    } else if (event.key === "Escape" && selected && selected.size > 0 && onSelect) {
      event.preventDefault();
      onSelect(new Set());
    } else if (event.key === "a" && (event.ctrlKey || event.metaKey) && onSelect) {
      event.preventDefault();
      onSelect(keysBetween(0, items.length - 1));
    } else if (event.ctrlKey || event.metaKey || event.altKey || !singleKeys()) {
      return;
    } else if (/^[0-9]$/.test(event.key) && cursor && props.onDigit) {
      event.preventDefault();
      props.onDigit(cursor, event.key);
    } else if (/^[a-z+-]$/.test(event.key) && cursor && props.onKey) {
      event.preventDefault();
      props.onKey(event.key, cursor);
    }
  };
  const onClick = (event: MouseEvent, index: number) => {
    if (!isRow(index)) return;
    const key = items.key(index);
    if (event.shiftKey) {
      go(index, true);
    } else {
      if (onSelect) {
        const next = new Set(event.ctrlKey || event.metaKey ? selected : []);
        if (event.ctrlKey || event.metaKey) {
          if (next.has(key)) next.delete(key);
          else next.add(key);
        } else {
          next.add(key);
        }
        onSelect(next);
      }
      go(index, false);
    }
  };

  return (
    <div
      className="grid-list flex min-h-0 flex-1 flex-col"
      style={{ "--rows": `${(items.length + 1) * ROW + 12}px` } as CSSProperties}
    >
      <div
        ref={scroller}
        role={items.length === 0 ? "region" : "grid"}
        aria-label={props.label}
        // the headings are the first row
        aria-rowcount={items.length === 0 ? undefined : items.length + 1}
        aria-multiselectable={onSelect && items.length > 0 ? true : undefined}
        aria-activedescendant={at >= 0 ? `${id}-${at}` : undefined}
        tabIndex={0}
        data-list
        onKeyDown={onKeyDown}
        // a row that is clicked is the cursor at once; only the keyboard comes in at the first row
        onPointerDownCapture={() => (pointing.current = true)}
        onPointerUpCapture={() => (pointing.current = false)}
        onFocus={() => !pointing.current && at < 0 && isRow(step(-1, 1)) && go(step(-1, 1), false)}
        className="group min-h-0 flex-1 overflow-auto [scrollbar-gutter:stable] focus-visible:outline-none"
      >
        <div
          role={items.length === 0 ? undefined : "row"}
          aria-rowindex={items.length === 0 ? undefined : 1}
          aria-hidden={items.length === 0 ? true : undefined}
          className="border-hair bg-sheet text-faint sticky top-0 z-10 grid items-center gap-x-3 border-b px-4 text-[13px] font-semibold"
          style={{ gridTemplateColumns: tracks, height: ROW }}
        >
          {columns.map((column, i) => (
            <span
              key={i}
              role={items.length === 0 ? undefined : "columnheader"}
              className={column.right ? "text-right" : "truncate"}
            >
              {column.quiet ? <span className="sr-only">{column.title}</span> : column.title}
            </span>
          ))}
        </div>
        {items.length === 0 && <div className="text-faint p-6">{props.empty}</div>}
        <div role="presentation" style={{ height: virtual.getTotalSize(), position: "relative" }}>
          {seen.map((spot) => {
            const item = items.at(spot.index);
            const place = {
              position: "absolute" as const,
              top: 0,
              left: 0,
              right: 0,
              height: ROW,
              transform: `translateY(${spot.start - ROW}px)`,
            };
            if (!item) {
              return (
                <div
                  key={items.key(spot.index)}
                  aria-hidden
                  style={place}
                  className="border-hair flex items-center border-b px-4"
                >
                  <div className="bg-hair/60 h-3" style={{ width: `${40 + ((spot.index * 37) % 45)}%` }} />
                </div>
              );
            }
            if ("heading" in item) {
              return (
                <div
                  key={item.key}
                  role="row"
                  aria-rowindex={spot.index + 2}
                  style={place}
                  className="bg-paper border-hair border-b px-4 leading-[29px]"
                >
                  <div role="gridcell" aria-colspan={columns.length}>
                    {item.heading}
                  </div>
                </div>
              );
            }
            const here = item.key === cursor;
            const chosen = selected?.has(item.key) ?? false;
            return (
              <div
                key={item.key}
                id={`${id}-${spot.index}`}
                role="row"
                aria-rowindex={spot.index + 2}
                aria-selected={onSelect ? chosen : undefined}
                data-key={item.key}
                onClick={(event) => onClick(event, spot.index)}
                onDoubleClick={() => props.onEnter?.(item.key)}
                style={{ ...place, gridTemplateColumns: tracks }}
                className={`border-hair grid items-center gap-x-3 border-b px-4 ${chosen ? "border-l-harbour border-l-4 pl-3" : ""} ${here ? "bg-cursor outline-harbour outline-1 -outline-offset-1 group-focus:outline-2 group-focus:-outline-offset-2" : ""} ${props.dim?.(item.row) ? "text-faint" : ""}`}
              >
                {columns.map((column, i) => (
                  <div
                    role="gridcell"
                    key={i}
                    className={column.right ? "text-right whitespace-nowrap" : "min-w-0 truncate"}
                  >
                    {column.cell(item.row)}
                  </div>
                ))}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}
