import { useInfiniteQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Figure } from "../frame/Station";
import { shortDate } from "../parts/dates";
import { Grid, type Column, type Item } from "../parts/Grid";
import { everyPage } from "../parts/PrintedList";
import { Loaded } from "../parts/Loaded";

type Line = Schemas["LedgerLineView"];

const ENTRY_COLUMNS: Column<Line>[] = [
  {
    key: "account",
    title: "Account",
    width: "minmax(220px,380px)",
    cell: (l) => <span className="pl-4">{l.account}</span>,
  },
  { key: "debit", title: "Debit", width: "130px", right: true, cell: (l) => l.debit },
  { key: "credit", title: "Credit", width: "130px", right: true, cell: (l) => l.credit },
  {
    key: "currency",
    title: "Currency",
    quiet: true,
    width: "1fr",
    cell: (l) => <span className="text-faint text-note">{l.currency}</span>,
  },
];

const itemsOf = (pages: Schemas["EntriesView"][]): Item<Line>[] =>
  pages
    .flatMap((page) => page.entries)
    .flatMap((entry) => [
      {
        key: `e${entry.id}`,
        heading: (
          <div className="flex gap-3">
            <span className="w-24">{shortDate(entry.date)}</span>
            <b className="min-w-0 flex-1 truncate">{entry.text}</b>
            <span className="text-faint text-note">
              {entry.kind.toLowerCase()}, {entry.by}
            </span>
          </div>
        ),
      },
      ...entry.lines.map((row, i) => ({ key: `e${entry.id}-${i}`, row })),
    ]);

/** The entries of a month, newest first. */
export function Entries({ month }: { month: string }) {
  const [cursor, setCursor] = useState<string>();
  const pages = useInfiniteQuery({
    queryKey: ["entries", month],
    initialPageParam: undefined as string | undefined,
    queryFn: ({ pageParam }) =>
      call(
        api.GET("/api/ledger/{month}/entries", { params: { path: { month }, query: { after: pageParam } } }),
      ),
    getNextPageParam: (page) => page.next ?? undefined,
  });
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  const items = itemsOf(pages.data?.pages ?? []);
  return (
    <Loaded query={pages}>
      {(data) => (
        <>
          <p className="text-faint px-4 pt-2 text-note">
            <Figure value={data.pages[0]?.total ?? 0}>entries, newest first</Figure>
          </p>
          <Grid
            list="entries"
            label="Entries"
            items={items}
            all={async () => itemsOf(await everyPage(pages))}
            columns={ENTRY_COLUMNS}
            cursor={cursor}
            onCursor={setCursor}
            onEnd={() => {
              if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
            }}
            empty="Nothing was written into this month yet."
          />
        </>
      )}
    </Loaded>
  );
}
