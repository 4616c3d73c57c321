import { useVirtualizer, defaultRangeExtractor } from "@tanstack/react-virtual";
import type { KeyboardEvent, MouseEvent, ReactNode } from "react";
import { useCallback, useEffect, useId, useRef } from "react";

export interface Column<R> {
  title: string;
  /** A CSS grid track, such as `90px` or `1fr`. */
  width: string;
  right?: boolean;
  cell: (row: R) => ReactNode;
}

/** Either a heading over rows, or a row. */
export type Item<R> = { heading: ReactNode; key: string } | { row: R; key: string };

export interface GridProps<R> {
  label: string;
  items: Item<R>[];
  columns: Column<R>[];
  cursor: string | undefined;
  onCursor: (key: string) => void;
  selected?: Set<string>;
  onSelect?: (keys: Set<string>) => void;
  /** Space: sets all selected rows, or the cursor's, to the new state of the cursor's row. */
  onSpace?: (keys: string[], cursor: string) => void;
  onEnter?: (key: string) => void;
  onDigit?: (key: string, digit: string) => void;
  dim?: (row: R) => boolean;
  empty: ReactNode;
  /** Called near the end, to load more. */
  onEnd?: () => void;
}

const ROW = 30;

/** A list of any length: one tab stop, a cursor, a selection, rows drawn only where they are seen. */
export function Grid<R>(props: GridProps<R>) {
  const { items, columns, cursor, selected, onCursor, onSelect, onEnd } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const anchor = useRef<number>(-1);
  const id = useId();
  const tracks = columns.map((column) => column.width).join(" ");
  const at = items.findIndex((item) => item.key === cursor);
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
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
  const last = virtual.getVirtualItems().at(-1)?.index ?? 0;
  useEffect(() => {
    if (onEnd && items.length > 0 && last >= items.length - 20) onEnd();
  }, [last, items.length, onEnd]);

  const isRow = (index: number) => {
    const item = items[index];
    return item !== undefined && "row" in item;
  };
  const step = (from: number, by: number): number => {
    let next = Math.max(0, Math.min(items.length - 1, from + by));
    const direction = by < 0 ? -1 : 1;
    while (next >= 0 && next < items.length && !isRow(next)) next += direction;
    return isRow(next) ? next : from;
  };
  const keysBetween = (a: number, b: number) =>
    new Set(
      items
        .slice(Math.min(a, b), Math.max(a, b) + 1)
        .filter((item) => "row" in item)
        .map((item) => item.key),
    );
  const go = (index: number, extend: boolean) => {
    const item = items[index];
    if (!item || !("row" in item)) return;
    if (extend && onSelect) {
      if (anchor.current < 0) anchor.current = at < 0 ? index : at;
      onSelect(keysBetween(anchor.current, index));
    } else {
      anchor.current = index;
    }
    onCursor(item.key);
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
    } else if (/^[0-9]$/.test(event.key) && !event.ctrlKey && !event.altKey && cursor && props.onDigit) {
      event.preventDefault();
      props.onDigit(cursor, event.key);
    }
  };
  const onClick = (event: MouseEvent, index: number) => {
    const item = items[index];
    if (!item || !("row" in item)) return;
    if (event.shiftKey) {
      go(index, true);
    } else {
      if (onSelect) {
        const next = new Set(event.ctrlKey || event.metaKey ? selected : []);
        if (event.ctrlKey || event.metaKey) {
          if (next.has(item.key)) next.delete(item.key);
          else next.add(item.key);
        } else {
          next.add(item.key);
        }
        onSelect(next);
      }
      go(index, false);
    }
  };

  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div
        aria-hidden
        className="border-hair text-faint grid shrink-0 items-center gap-x-3 border-b px-4 text-[13px] font-semibold"
        style={{ gridTemplateColumns: tracks, height: ROW }}
      >
        {columns.map((column, i) => (
          <span key={i} className={column.right ? "text-right" : ""}>
            {column.title}
          </span>
        ))}
      </div>
      <div
        ref={scroller}
        role={items.length === 0 ? "region" : "grid"}
        aria-label={props.label}
        aria-rowcount={items.length === 0 ? undefined : items.length}
        aria-multiselectable={onSelect && items.length > 0 ? true : undefined}
        aria-activedescendant={at >= 0 ? `${id}-${at}` : undefined}
        tabIndex={0}
        data-list
        onKeyDown={onKeyDown}
        onFocus={() => at < 0 && isRow(step(-1, 1)) && go(step(-1, 1), false)}
        className="group min-h-0 flex-1 overflow-auto focus-visible:outline-none"
      >
        {items.length === 0 && <div className="text-faint p-6">{props.empty}</div>}
        <div role="presentation" style={{ height: virtual.getTotalSize(), position: "relative" }}>
          {virtual.getVirtualItems().map((seen) => {
            const item = items[seen.index]!;
            const place = {
              position: "absolute" as const,
              top: 0,
              left: 0,
              right: 0,
              height: ROW,
              transform: `translateY(${seen.start}px)`,
            };
            if ("heading" in item) {
              return (
                <div
                  key={item.key}
                  role="row"
                  aria-rowindex={seen.index + 1}
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
                id={`${id}-${seen.index}`}
                role="row"
                aria-rowindex={seen.index + 1}
                aria-selected={onSelect ? chosen : undefined}
                data-key={item.key}
                onClick={(event) => onClick(event, seen.index)}
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
