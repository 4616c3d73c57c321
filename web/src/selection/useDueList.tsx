import { keepPreviousData, useQueries, useQuery, type UseQueryResult } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { api, call, type Schemas } from "../api/client";
import type { Item, Rows } from "../parts/Grid";
import type { HowListed, Question } from "./criteria";

export type Row = Schemas["DueRowView"];
export type DueView = Schemas["DueView"];
type Group = Schemas["GroupView"];

const PAGE = 100;
const MOST_SEEN = 200;
const MOST_KEPT = 5_000;
const LINE = "cash-line";

/** An answer, and the question it answers: its further pages are asked for with exactly that. */
interface Answered {
  view: DueView;
  asked: Question & HowListed;
  at: number;
}

function byEntry(pages: UseQueryResult<Row[]>[]): Map<number, Row> {
  return new Map(pages.flatMap((page) => page.data ?? []).map((row) => [row.invoice, row]));
}

/** The list of the sentence: its totals at once, its rows page by page as they come into view. */
export function useDueList(
  question: Question,
  how: HowListed,
  heading: (group: Group, view: DueView) => ReactNode,
  line: (view: DueView) => ReactNode,
) {
  const due = useQuery({
    queryKey: ["due", question, how],
    queryFn: ({ signal }) =>
      call(api.GET("/api/due", { params: { query: { ...question, ...how } }, signal })),
    placeholderData: keepPreviousData,
  });
  // what is shown goes on belonging to the question it answered while the next answer is under way
  const [answered, setAnswered] = useState<Answered>();
  if (due.data && !due.isPlaceholderData && answered?.view !== due.data)
    setAnswered({ view: due.data, asked: { ...question, ...how }, at: due.dataUpdatedAt });
  const view = answered?.view;
  const [wanted, setWanted] = useState({ from: 0, to: 0 });
  const pages: number[] = [];
  for (let page = Math.max(1, wanted.from); view && page <= wanted.to && page * PAGE < view.listed; page++)
    pages.push(page);
  // one query for each page of each answer: a late one of another answer lands nowhere, an overtaken one is aborted
  const further = useQueries({
    queries: pages.map((page) => ({
      queryKey: ["due-rows", answered?.asked, answered?.at, page],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        call(
          api.GET("/api/due/rows", { params: { query: { ...answered!.asked, from: page * PAGE } }, signal }),
        ),
      staleTime: Infinity,
    })),
    combine: byEntry,
  });
  const first = useMemo(() => new Map(view?.rows.map((row) => [row.invoice, row])), [view]);
  // until a page is here, its rows stay as the answer before had them
  const before = useRef(new Map<number, Row>());
  useEffect(() => {
    if (before.current.size > MOST_KEPT) before.current = new Map();
    for (const known of [first, further]) known.forEach((row, entry) => before.current.set(entry, row));
  }, [first, further]);

  const order = useMemo(() => {
    const places: number[] = []; // a row's place, or -1 - the group's, or the line
    const at = new Map<string, number>();
    view?.groups.forEach((group, g) => {
      if (view.lineAt === g) places.push(Number.NEGATIVE_INFINITY);
      at.set(`group-${group.key}`, places.length);
      places.push(-1 - g);
      for (let i = group.first; i < group.first + group.count; i++) {
        at.set(String(view.order[i]), places.length);
        places.push(i);
      }
    });
    return { places, at };
  }, [view]);

  const itemAt = useCallback(
    (i: number, rowOf: (entry: number) => Row | undefined): Item<Row> | undefined => {
      const place = order.places[i];
      if (place === undefined || !view) return undefined;
      if (place === Number.NEGATIVE_INFINITY) return { key: LINE, heading: line(view) };
      if (place < 0) {
        const group = view.groups[-1 - place]!;
        return { key: `group-${group.key}`, heading: heading(group, view) };
      }
      const entry = view.order[place]!;
      const row = rowOf(entry);
      return row && { key: String(entry), row };
    },
    [order, view, heading, line],
  );
  const items = useMemo<Rows<Row>>(
    () => ({
      length: order.places.length,
      isRow: (i) => (order.places[i] ?? -1) >= 0,
      key: (i) => {
        const place = order.places[i] ?? -1;
        if (place >= 0) return String(view?.order[place]);
        return place === Number.NEGATIVE_INFINITY ? LINE : `group-${view?.groups[-1 - place]?.key}`;
      },
      indexOf: (key) => order.at.get(key) ?? -1,
      at: (i) => itemAt(i, (entry) => first.get(entry) ?? further.get(entry) ?? before.current.get(entry)),
    }),
    [order, view, first, further, itemAt],
  );

  const onRange = useCallback(
    (start: number, end: number) => {
      if (!view) return;
      // a page before and after what is seen, so that scrolling finds them there
      const from = order.places.slice(Math.max(0, start - PAGE), start + 1).find((place) => place >= 0) ?? 0;
      const to = from + Math.min(end - start, MOST_SEEN) + 3 * PAGE;
      const next = { from: Math.floor(from / PAGE), to: Math.floor(to / PAGE) };
      setWanted((last) => (last.from === next.from && last.to === next.to ? last : next));
    },
    [view, order],
  );

  const row = useCallback(
    (key: string | undefined): Row | undefined => {
      const item = key === undefined ? undefined : items.at(items.indexOf(key));
      return item && "row" in item ? item.row : undefined;
    },
    [items],
  );
  /** Every row, for paper. */
  const all = useCallback(async () => {
    const rows = new Map(first);
    for (let from = PAGE; view && from < view.listed; from += PAGE)
      (await call(api.GET("/api/due/rows", { params: { query: { ...answered!.asked, from } } }))).forEach(
        (row) => rows.set(row.invoice, row),
      );
    return order.places.flatMap((_, i) => itemAt(i, (entry) => rows.get(entry)) ?? []);
  }, [view, answered, first, order, itemAt]);
  return { due, items, onRange, row, all };
}
