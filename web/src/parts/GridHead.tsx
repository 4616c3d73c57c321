import type { PointerEvent } from "react";
import type { Column } from "./columns";
import type { Sorting } from "./arranging";

const SIGNS = { ascending: "▲", descending: "▼" };

/** The headings of a list: a press sorts, the right edge sizes. */
export function GridHead<R>({
  columns,
  tracks,
  height,
  empty,
  sorting,
  onSort,
  onSize,
}: {
  columns: Column<R>[];
  tracks: string;
  height: number;
  /** Without rows it is no part of a grid, only the look of one. */
  empty: boolean;
  sorting: (column: Column<R>) => Sorting;
  onSort: (key: string) => void;
  onSize: (key: string, width: number) => void;
}) {
  return (
    <div
      role={empty ? undefined : "row"}
      aria-rowindex={empty ? undefined : 1}
      aria-hidden={empty ? true : undefined}
      className="border-hair bg-sheet text-faint sticky top-0 z-10 grid items-center gap-x-3 border-b px-4 text-note font-semibold"
      style={{ gridTemplateColumns: tracks, height }}
    >
      {columns.map((column) => {
        const sorted = sorting(column);
        return (
          <span
            key={column.key}
            role={empty ? undefined : "columnheader"}
            aria-sort={empty || sorted === "never" || sorted === "none" ? undefined : sorted}
            data-column={column.key}
            className={`relative min-w-0 ${column.right ? "text-right" : ""}`}
          >
            {column.quiet ? (
              <span className="sr-only">{column.title}</span>
            ) : sorted === "never" || empty ? (
              <span className="block truncate">{column.title}</span>
            ) : (
              <button
                type="button"
                tabIndex={-1}
                className={`hover:text-ink block min-h-6 w-full truncate ${column.right ? "text-right" : "text-left"}`}
                onClick={() => onSort(column.key)}
              >
                {sorted !== "none" && <span aria-hidden>{SIGNS[sorted]} </span>}
                {column.title}
              </button>
            )}
            {!empty && <Edge onSize={(width) => onSize(column.key, width)} />}
          </span>
        );
      })}
    </div>
  );
}

/** The edge of a column, moved by the pointer; the keyboard has it in the list's own menu. */
function Edge({ onSize }: { onSize: (width: number) => void }) {
  const onPointerDown = (event: PointerEvent<HTMLSpanElement>) => {
    event.preventDefault();
    const edge = event.currentTarget;
    const wide = edge.parentElement!.offsetWidth;
    const from = event.clientX;
    edge.setPointerCapture(event.pointerId);
    edge.onpointermove = (moved) => onSize(wide + moved.clientX - from);
    edge.onpointerup = edge.onpointercancel = () => (edge.onpointermove = null);
  };
  return (
    <span
      aria-hidden
      onPointerDown={onPointerDown}
      className="hover:border-harbour absolute -top-1 -right-2 h-8 w-2 cursor-col-resize touch-none border-r border-transparent"
    />
  );
}
