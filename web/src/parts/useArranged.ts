import {
  columnOrderingFeature,
  columnSizingFeature,
  columnVisibilityFeature,
  columnFilteringFeature,
  createFilteredRowModel,
  createSortedRowModel,
  globalFilteringFeature,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
} from "@tanstack/react-table";
import { useMemo } from "react";
import { inOrder, rowsOf, sortKey, wordsOf, type Column, type Item, type Rows } from "./columns";
import type { Arrangement } from "./keptLists";

const features = tableFeatures({
  columnFilteringFeature,
  columnOrderingFeature,
  columnSizingFeature,
  columnVisibilityFeature,
  globalFilteringFeature,
  rowSortingFeature,
  filteredRowModel: createFilteredRowModel(),
  sortedRowModel: createSortedRowModel(),
});

/** A row with the place of its heading: whatever a list is sorted by, its groups stay. */
interface Placed<R> {
  key: string;
  row: R;
  group: number;
}
type Def<R> = ColumnDef<typeof features, Placed<R>>;

const GROUP = "·group";
const NOTHING: Placed<never>[] = [];

/** The rows under their headings, as they come. */
function placed<R>(items: Item<R>[]): Placed<R>[] {
  let group = -1;
  const rows: Placed<R>[] = [];
  items.forEach((item, i) => {
    if ("heading" in item) group = i;
    else rows.push({ ...item, group });
  });
  return rows;
}

/** The arranged rows back under their headings; a heading over nothing is left away. */
function headed<R>(items: Item<R>[], rows: Placed<R>[]): Item<R>[] {
  const all: Item<R>[] = [];
  let group = -1;
  for (const row of rows) {
    if (row.group !== group) {
      group = row.group;
      all.push(items[group]!);
    }
    all.push(row);
  }
  return all;
}

/**
 * A list as somebody arranged it: which columns in which order and how wide; and, where all of it is here, sorted within its
 * groups and narrowed to the rows that hold some words. A list of which only a part is here is sorted by the server.
 *
 * @param whole whether every row is here
 */
export function useArranged<R>(
  given: Item<R>[] | Rows<R>,
  columns: Column<R>[],
  arrangement: Arrangement,
  holding: string,
  whole: boolean,
) {
  const plain = useMemo(() => (whole && Array.isArray(given) ? given : undefined), [given, whole]);
  const data = useMemo(() => (plain ? placed(plain) : (NOTHING as Placed<R>[])), [plain]);
  const defs = useMemo<Def<R>[]>(
    () => [
      { id: GROUP, accessorFn: (one) => one.group, enableGlobalFilter: false },
      ...columns.map((column): Def<R> => ({
        id: column.key,
        accessorFn: (one) => sortKey(column, one.row),
        sortFn: (a, b, id) => inOrder(a.getValue(id), b.getValue(id)),
        sortUndefined: "last",
      })),
    ],
    [columns],
  );
  const moved = arrangement.columns.map((one) => one.key);
  const sorted = columns.find((column) => column.key === arrangement.sortedBy);
  const table = useTable({
    features,
    columns: defs,
    data,
    getRowId: (one) => one.key,
    manualSorting: !whole,
    globalFilterFn: (one, _, words: string) => {
      const wanted = words.toLowerCase();
      return columns.some((column) => wordsOf(column, one.original.row).toLowerCase().includes(wanted));
    },
    getColumnCanGlobalFilter: (column) => column.id !== GROUP,
    state: {
      columnFilters: [],
      columnOrder: moved,
      columnSizing: Object.fromEntries(
        arrangement.columns.flatMap((one) => (one.width ? [[one.key, one.width]] : [])),
      ),
      columnVisibility: {
        [GROUP]: false,
        ...Object.fromEntries(arrangement.columns.filter((one) => one.hidden).map((one) => [one.key, false])),
      },
      globalFilter: holding,
      sorting: sorted
        ? [
            { id: GROUP, desc: false },
            { id: sorted.key, desc: arrangement.descending },
          ]
        : [],
    },
  });
  const shown = table
    .getVisibleLeafColumns()
    .flatMap((one) => columns.find((column) => column.key === one.id) ?? []);
  const sizes = table.state.columnSizing;
  // a list that nothing arranges is drawn as it came
  const model = plain && (sorted || holding) ? table.getRowModel() : undefined;
  const items = useMemo(
    () =>
      plain && model
        ? rowsOf(
            headed(
              plain,
              model.rows.map((one) => one.original),
            ),
          )
        : Array.isArray(given)
          ? rowsOf(given)
          : given,
    [plain, model, given],
  );
  return {
    items,
    shown: shown.length ? shown : columns.slice(0, 1),
    tracks: shown.map((column) => (sizes[column.key] ? `${sizes[column.key]}px` : column.width)).join(" "),
    held: model ? model.rows.length : undefined,
    all: data.length,
  };
}
