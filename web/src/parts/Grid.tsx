import type { CSSProperties, ReactNode } from "react";
import { useCallback, useId, useMemo, useRef, useState } from "react";
import { ArrangeList } from "./ArrangeList";
import { arrangedColumns, folded, nextSort, sized, sortingOf } from "./arranging";
import { withoutFolded, type Column, type Item, type Rows } from "./columns";
import { GridHead } from "./GridHead";
import { GridRow } from "./GridRow";
import { clicked, pressed, step } from "./listKeys";
import { PrintedList, usePrinted } from "./PrintedList";
import { copied } from "./copying";
import { useArranged } from "./useArranged";
import { useArrangement } from "./useArrangement";
import { useHolding } from "./useHolding";
import { useMoves } from "./useMoves";
import { useSeen } from "./useSeen";

export type { Column, Item, Rows } from "./columns";

export interface GridProps<R> {
  /** The name under which its columns, sizes and order are kept for each person. */
  list: string;
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
  /** Brings every row, for paper, where only a part of the list is here. */
  all?: () => Promise<Item<R>[]>;
  /** Chosen rows as CSV, where not all of them are here. */
  csv?: (keys: string[]) => Promise<string>;
}

const ROW = 30;

/** The rows of a list as they are arranged and seen, and where its cursor may go. */
function useGrid<R>(props: GridProps<R>) {
  const { list, columns, cursor, onEnd, onRange, all } = props;
  const whole = Array.isArray(props.items) && !onEnd;
  const [arrangement, arrange] = useArrangement(list);
  const [holding, setHolding] = useHolding(list);
  const arranged = useArranged(props.items, columns, arrangement, holding, whole);
  const foldedNow = useMemo(() => new Set(arrangement.folded), [arrangement.folded]);
  const items = useMemo(() => withoutFolded(arranged.items, foldedNow), [arranged.items, foldedNow]);
  // the heading of a folded group, when the cursor stands on it; beside the list nothing changes by that
  const [resting, setResting] = useState<string>();
  const rested = resting !== undefined && foldedNow.has(resting) ? items.indexOf(resting) : -1;
  const at = rested >= 0 ? rested : cursor === undefined ? -1 : items.indexOf(cursor);
  const { scroller, virtual, show } = useSeen({ items, at, cursor, height: ROW, onRange, onEnd });
  const moves = useMoves({
    ...props,
    rows: items,
    at,
    foldedNow,
    arrangement,
    arrange,
    height: ROW,
    scroller,
    show,
    onRest: setResting,
  });
  const here = useCallback(
    () =>
      Array.from({ length: arranged.items.length }, (_, i) => arranged.items.at(i)).flatMap(
        (item) => item ?? [],
      ),
    [arranged.items],
  );
  const { printed, print } = usePrinted(
    here,
    useCallback(async () => (all ? all() : here()), [all, here]),
    arranged.items.length,
    whole,
  );
  return {
    whole,
    arrangement,
    arrange,
    holding,
    setHolding,
    arranged,
    foldedNow,
    items,
    at,
    scroller,
    virtual,
    moves,
    here,
    printed,
    print,
  };
}

/** A list of any length: one tab stop, a cursor, a selection, rows drawn only where they are seen. */
export function Grid<R>(props: GridProps<R>) {
  const { columns, cursor, selected, onSelect } = props;
  const list = useGrid(props);
  const { whole, arrangement, arrange, holding, setHolding, arranged, foldedNow, items, at, moves, here } =
    list;
  const { scroller, virtual, printed, print } = list;
  const pointing = useRef(false);
  const id = useId();
  const size = (key: string, width: number) =>
    arrange({ columns: sized(arrangedColumns(columns, arrangement), key, width) });
  const empty = items.length === 0;
  return (
    <div
      className="grid-list relative flex min-h-0 flex-1 flex-col"
      style={{ "--rows": `${(items.length + 1) * ROW + 12}px` } as CSSProperties}
    >
      {holding && whole && (
        <p className="border-hair text-brass no-print flex shrink-0 items-center gap-3 border-b px-4 text-note">
          Only rows that hold “{holding}”: {arranged.held} of {arranged.all}.
          <button type="button" className="go min-h-7" onClick={() => setHolding("")}>
            Show all
          </button>
        </p>
      )}
      <div
        ref={scroller}
        role={empty ? "region" : "grid"}
        aria-label={props.label}
        // the headings are the first row
        aria-rowcount={empty ? undefined : items.length + 1}
        aria-multiselectable={onSelect && !empty ? true : undefined}
        aria-activedescendant={at >= 0 ? `${id}-${at}` : undefined}
        tabIndex={0}
        data-list
        onKeyDown={(event) => pressed(moves, event)}
        onCopy={(event) =>
          copied(
            event,
            selected?.size ? [...selected] : cursor ? [cursor] : [],
            arranged.shown,
            here,
            props.csv,
          )
        }
        // a row that is clicked is the cursor at once; only the keyboard comes in at the first row
        onPointerDownCapture={() => (pointing.current = true)}
        onPointerUpCapture={() => (pointing.current = false)}
        onFocus={() => !pointing.current && at < 0 && moves.go(step(moves, -1, 1), false)}
        className="group no-print min-h-0 flex-1 overflow-auto [scrollbar-gutter:stable] focus-visible:outline-none"
      >
        <GridHead
          columns={arranged.shown}
          tracks={arranged.tracks}
          height={ROW}
          empty={empty}
          sorting={(column) => sortingOf(column, arrangement, whole)}
          onSort={(key) => arrange(nextSort(key, arrangement))}
          onSize={size}
        />
        {empty && (
          <div className="text-faint p-6">{holding && arranged.all ? "No row holds that." : props.empty}</div>
        )}
        <div role="presentation" style={{ height: virtual.getTotalSize(), position: "relative" }}>
          {virtual.getVirtualItems().map((spot) => (
            <GridRow
              key={items.key(spot.index)}
              id={`${id}-${spot.index}`}
              item={items.at(spot.index)}
              index={spot.index}
              top={spot.start - ROW}
              height={ROW}
              columns={arranged.shown}
              tracks={arranged.tracks}
              here={spot.index === at}
              chosen={selected?.has(items.key(spot.index)) ?? false}
              selectable={onSelect !== undefined}
              dim={props.dim}
              fold={
                foldedNow.has(items.key(spot.index)) ? true : items.isRow(spot.index + 1) ? false : undefined
              }
              onFold={(fold) => arrange(folded(arrangement, items.key(spot.index), fold))}
              onClick={(event) => clicked(moves, event, spot.index)}
              onOpen={() => props.onEnter?.(items.key(spot.index))}
            />
          ))}
        </div>
      </div>
      <ArrangeList
        label={props.label}
        columns={columns}
        arrangement={arrangement}
        arrange={arrange}
        whole={whole}
        holding={holding}
        onHolding={whole ? setHolding : undefined}
        widthOf={(key) =>
          scroller.current?.querySelector<HTMLElement>(`[data-column="${key}"]`)?.offsetWidth ?? 100
        }
        headings={() =>
          Array.from({ length: arranged.items.length }, (_, i) => i)
            .filter((i) => !arranged.items.isRow(i) && arranged.items.isRow(i + 1))
            .map((i) => arranged.items.key(i))
        }
        onPrint={() => void print()}
      />
      {printed && <PrintedList columns={arranged.shown} {...printed} />}
    </div>
  );
}
