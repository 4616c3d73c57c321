import type { MouseEvent } from "react";
import type { Column, Item } from "./columns";

/** One row of a list, a heading over rows, or the place of a row that is still on its way. */
export function GridRow<R>({
  id,
  item,
  index,
  top,
  height,
  columns,
  tracks,
  here,
  chosen,
  selectable,
  dim,
  fold,
  onFold,
  onClick,
  onOpen,
}: {
  id: string;
  item: Item<R> | undefined;
  index: number;
  top: number;
  height: number;
  columns: Column<R>[];
  tracks: string;
  here: boolean;
  chosen: boolean;
  selectable: boolean;
  dim: ((row: R) => boolean) | undefined;
  /** Whether the group under a heading is folded; undefined where there is no group under it. */
  fold: boolean | undefined;
  onFold: (fold: boolean) => void;
  onClick: (event: MouseEvent) => void;
  onOpen: () => void;
}) {
  const place = {
    position: "absolute" as const,
    top: 0,
    left: 0,
    right: 0,
    height,
    transform: `translateY(${top}px)`,
  };
  const outline = here
    ? "bg-cursor outline-harbour outline-1 -outline-offset-1 group-focus:outline-2 group-focus:-outline-offset-2"
    : "";
  if (!item)
    return (
      <div aria-hidden style={place} className="border-hair flex items-center border-b px-4">
        <div className="bg-hair/60 h-3" style={{ width: `${40 + ((index * 37) % 45)}%` }} />
      </div>
    );
  if ("heading" in item)
    return (
      <div
        id={id}
        role="row"
        aria-rowindex={index + 2}
        style={place}
        className={`border-hair flex border-b pr-4 leading-[29px] ${here ? outline : "bg-paper"}`}
      >
        <div role="gridcell" aria-colspan={columns.length} className="flex min-w-0 flex-1">
          {fold === undefined ? (
            <span className="w-6" />
          ) : (
            <button
              type="button"
              tabIndex={-1}
              aria-expanded={!fold}
              aria-label={fold ? "Unfold this group" : "Fold this group"}
              className="text-faint hover:text-ink w-6 shrink-0 text-mark"
              onClick={() => onFold(!fold)}
            >
              <span aria-hidden>{fold ? "▸" : "▾"}</span>
            </button>
          )}
          <div className="min-w-0 flex-1">{item.heading}</div>
        </div>
      </div>
    );
  return (
    <div
      id={id}
      role="row"
      aria-rowindex={index + 2}
      aria-selected={selectable ? chosen : undefined}
      data-key={item.key}
      onClick={onClick}
      onDoubleClick={onOpen}
      style={{ ...place, gridTemplateColumns: tracks }}
      className={`border-hair grid items-center gap-x-3 border-b px-4 ${chosen ? "border-l-harbour border-l-4 pl-3" : ""} ${outline} ${dim?.(item.row) ? "text-faint" : ""}`}
    >
      {columns.map((column) => (
        <div
          role="gridcell"
          key={column.key}
          className={column.right ? "text-right whitespace-nowrap" : "min-w-0 truncate"}
        >
          {column.cell(item.row)}
        </div>
      ))}
    </div>
  );
}
