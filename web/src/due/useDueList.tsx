import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { api, call, type Schemas } from "../api/client";
import type { Item, Rows } from "../parts/Grid";
import type { ListedBy, Question } from "./criteria";

export type Row = Schemas["DueRowView"];
export type DueView = Schemas["DueView"];
type Group = Schemas["GroupView"];

const PAGE = 100;
const MOST_SEEN = 200;
const LINE = "cash-line";

/** The list of the sentence: its totals at once, its rows as they come into view. */
export function useDueList(
  question: Question,
  listedBy: ListedBy,
  days: string | undefined,
  heading: (group: Group) => ReactNode,
  line: (view: DueView) => ReactNode,
) {
  const due = useQuery({
    queryKey: ["due", question, listedBy, days],
    queryFn: () => call(api.GET("/api/due", { params: { query: { ...question, listedBy, days } } })),
    placeholderData: keepPreviousData,
  });
  const view = due.data;
  const [loaded, setLoaded] = useState<{ of: DueView | undefined; pages: Map<number, Row[]> }>({
    of: undefined,
    pages: new Map(),
  });
  const asked = useRef(new Set<number>());
  const current = useMemo(() => {
    if (loaded.of === view) return loaded.pages;
    return new Map<number, Row[]>(view ? [[0, view.rows]] : []);
  }, [loaded, view]);
  useEffect(() => {
    asked.current = new Set([0]);
  }, [view]);

  const order = useMemo(() => {
    const places: number[] = []; // a row's place, or -1 - the group's, or the line
    const at = new Map<string, number>();
    view?.groups.forEach((group, g) => {
      if (view.lineAt === g) places.push(Number.NEGATIVE_INFINITY);
      places.push(-1 - g);
      for (let i = group.first; i < group.first + group.count; i++) {
        at.set(String(view.order[i]), places.length);
        places.push(i);
      }
    });
    return { places, at };
  }, [view]);

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
      at: (i): Item<Row> | undefined => {
        const place = order.places[i];
        if (place === undefined || !view) return undefined;
        if (place === Number.NEGATIVE_INFINITY) return { key: LINE, heading: line(view) };
        if (place < 0) {
          const group = view.groups[-1 - place]!;
          return { key: `group-${group.key}`, heading: heading(group) };
        }
        const row = current.get(Math.floor(place / PAGE))?.[place % PAGE];
        return row && { key: String(row.invoice), row };
      },
    }),
    [order, view, current, heading, line],
  );

  const onRange = useCallback(
    (first: number, last: number) => {
      if (!view) return;
      // a page before and after what is seen, so that scrolling finds them there
      const from = order.places.slice(Math.max(0, first - PAGE), first + 1).find((place) => place >= 0) ?? 0;
      const to = Math.min(view.listed - 1, from + Math.min(last - first, MOST_SEEN) + 3 * PAGE);
      for (let page = Math.floor(from / PAGE); page <= Math.floor(to / PAGE); page++) {
        if (asked.current.has(page) || page * PAGE >= view.listed) continue;
        asked.current.add(page);
        void call(
          api.GET("/api/due/rows", { params: { query: { ...question, listedBy, days, from: page * PAGE } } }),
        ).then(
          (rows) =>
            setLoaded((before) => {
              const pages = new Map(before.of === view ? before.pages : [[0, view.rows]]);
              pages.set(page, rows);
              return { of: view, pages };
            }),
          () => asked.current.delete(page),
        );
      }
    },
    [view, order, question, listedBy, days],
  );

  const row = useCallback(
    (key: string | undefined): Row | undefined => {
      const item = key === undefined ? undefined : items.at(items.indexOf(key));
      return item && "row" in item ? item.row : undefined;
    },
    [items],
  );
  return { due, items, onRange, row };
}
