import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { arrangedColumns, hidden, movedBy, nextSort, sized, sortingOf } from "./arranging";
import { Button } from "./Button";
import type { Column } from "./columns";
import type { Arrangement } from "./keptLists";

const STEP_PX = 16;

/** What the list is arranged by, and what else can be done with all of it. */
export interface Arranging<R> {
  label: string;
  columns: Column<R>[];
  arrangement: Arrangement;
  arrange: (next: Partial<Arrangement>) => void;
  whole: boolean;
  /** The rows that hold these words, where all of them are here; undefined where they are not. */
  holding: string;
  onHolding: ((words: string) => void) | undefined;
  /** How wide a column is now, in CSS pixels. */
  widthOf: (key: string) => number;
  /** The headings that can be folded. */
  headings: () => string[];
  onPrint: () => void;
}

/** Columns, order, widths, groups and printing of a list, for mouse and keyboard alike. */
export function ArrangeList<R>(props: Arranging<R>) {
  const arranged = props.arrangement.columns.length > 0 || Boolean(props.arrangement.sortedBy);
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`Arrange this list: ${props.label}`}
        title="Columns, order, groups, print"
        className={`no-print absolute top-0 right-0 z-10 h-[29px] w-[30px] text-base leading-none font-bold ${arranged ? "text-harbour" : "text-faint"}`}
      >
        <span aria-hidden>⋯</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={2}
          collisionPadding={8}
          className="bg-sheet border-faint z-20 flex max-h-[min(560px,var(--radix-popover-content-available-height))] w-[360px] flex-col gap-2 overflow-auto border p-3 text-note"
        >
          <Choices {...props} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Choices<R>({ arrangement, arrange, onHolding, holding, headings, onPrint, ...rest }: Arranging<R>) {
  const groups = headings();
  return (
    <>
      {onHolding && (
        <label className="flex items-center gap-2">
          Only rows that hold
          <input
            className="min-h-7 flex-1 py-0"
            value={holding}
            placeholder="anything"
            onChange={(event) => onHolding(event.target.value)}
          />
        </label>
      )}
      <ColumnRows {...rest} arrangement={arrangement} arrange={arrange} />
      <div className="flex flex-wrap gap-x-3">
        {groups.length > 0 && (
          <>
            <Button look="bare" onClick={() => arrange({ folded: groups.slice(-200) })}>
              Fold every group
            </Button>
            <Button look="bare" onClick={() => arrange({ folded: [] })}>
              Unfold all
            </Button>
          </>
        )}
        <Popover.Close asChild>
          <Button look="bare" onClick={onPrint}>
            Print the whole list
          </Button>
        </Popover.Close>
        <Button
          look="bare"
          onClick={() => arrange({ columns: [], sortedBy: undefined, descending: false, folded: [] })}
        >
          As it was at first
        </Button>
      </div>
      <p className="text-faint">
        Kept for you, on any machine. Ctrl C copies the selected rows as CSV
        {groups.length > 0 && "; the arrow to the left folds a group, to the right unfolds it"}.
      </p>
    </>
  );
}

const SORTED: Record<string, string> = {
  none: "not sorted by it",
  ascending: "ascending",
  descending: "descending",
};
const SIGNS: Record<string, string> = { none: "↕", ascending: "▲", descending: "▼" };

function ColumnRows<R>({
  columns,
  arrangement,
  arrange,
  whole,
  widthOf,
}: Pick<Arranging<R>, "columns" | "arrangement" | "arrange" | "whole" | "widthOf">) {
  const all = arrangedColumns(columns, arrangement);
  return (
    <ul aria-label="Columns">
      {all.map((one, i) => {
        const column = columns.find((column) => column.key === one.key)!;
        const sorting = sortingOf(column, arrangement, whole);
        const size = (by: number) => arrange({ columns: sized(all, one.key, widthOf(one.key) + by) });
        return (
          <li key={one.key} className="flex items-center gap-1">
            <label className="flex min-h-7 flex-1 items-center gap-2 truncate">
              <input
                type="checkbox"
                checked={!one.hidden}
                onChange={(event) => arrange({ columns: hidden(all, one.key, !event.target.checked) })}
              />
              {column.title}
            </label>
            {sorting !== "never" && (
              <Small
                says={`Sort by ${column.title}: ${SORTED[sorting]}`}
                onPress={() => arrange(nextSort(one.key, arrangement))}
              >
                {SIGNS[sorting]}
              </Small>
            )}
            <Small says={`${column.title} narrower`} off={one.hidden} onPress={() => size(-STEP_PX)}>
              −
            </Small>
            <Small says={`${column.title} wider`} off={one.hidden} onPress={() => size(STEP_PX)}>
              +
            </Small>
            <Small
              says={`${column.title} earlier`}
              off={i === 0}
              onPress={() => arrange({ columns: movedBy(all, one.key, -1) })}
            >
              ↑
            </Small>
            <Small
              says={`${column.title} later`}
              off={i === all.length - 1}
              onPress={() => arrange({ columns: movedBy(all, one.key, 1) })}
            >
              ↓
            </Small>
          </li>
        );
      })}
    </ul>
  );
}

function Small({
  says,
  off,
  onPress,
  children,
}: {
  says: string;
  off?: boolean;
  onPress: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={says}
      title={says}
      disabled={off}
      onClick={onPress}
      className="text-harbour border-hair h-7 w-7 shrink-0 border disabled:opacity-40"
    >
      {children}
    </button>
  );
}
