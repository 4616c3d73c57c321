import { useCallback, useEffect, useState } from "react";
import { flushSync } from "react-dom";
import { toast } from "sonner";
import { useInfiniteQuery, type InfiniteData } from "@tanstack/react-query";
import type { Column, Item } from "./columns";

const MOST_PRINTED = 20_000;

type Pages<P> = Pick<
  ReturnType<typeof useInfiniteQuery<P, Error, InfiniteData<P>>>,
  "data" | "hasNextPage" | "fetchNextPage"
>;

/** Every page of a list, brought one after the other. */
export async function everyPage<P>(pages: Pages<P>): Promise<P[]> {
  let now: Pages<P> = pages;
  while (now.hasNextPage) now = await now.fetchNextPage({ throwOnError: true });
  return now.data?.pages ?? [];
}

/**
 * A list on paper: all of its rows, whether asked for here or by the browser's own command, which can only wait for those
 * that are here.
 */
export function usePrinted<R>(
  here: () => Item<R>[],
  all: () => Promise<Item<R>[]>,
  known: number,
  whole: boolean,
) {
  const [printed, setPrinted] = useState<{ items: Item<R>[]; part: boolean }>();
  useEffect(() => {
    const before = () => {
      const items = here();
      const part = !whole || items.length > MOST_PRINTED;
      flushSync(() => setPrinted((now) => now ?? { items: items.slice(0, MOST_PRINTED), part }));
    };
    const after = () => setPrinted(undefined);
    window.addEventListener("beforeprint", before);
    window.addEventListener("afterprint", after);
    return () => {
      window.removeEventListener("beforeprint", before);
      window.removeEventListener("afterprint", after);
    };
  }, [here, whole]);
  const print = useCallback(async () => {
    if (tooMany(known)) return;
    const under = toast.loading("Bringing the whole list …");
    try {
      const items = await all();
      if (tooMany(items.length)) return;
      flushSync(() => setPrinted({ items, part: false }));
      window.print();
    } catch {
      toast.error("The list could not be brought whole, so nothing was printed. Print it again.");
    } finally {
      toast.dismiss(under);
    }
  }, [all, known]);
  return { printed, print };
}

function tooMany(rows: number): boolean {
  if (rows <= MOST_PRINTED) return false;
  toast.error(
    `${rows.toLocaleString("en")} rows are too many for paper: at most ${MOST_PRINTED.toLocaleString("en")} are printed. Narrow the list, or take it as CSV.`,
  );
  return true;
}

/** The rows as a table that breaks over pages, its headings on each. */
export function PrintedList<R>({
  columns,
  items,
  part,
}: {
  columns: Column<R>[];
  items: Item<R>[];
  /** Not every row is here. */
  part: boolean;
}) {
  return (
    <table className="printed-list w-full text-mark">
      {part && (
        <caption className="text-left">
          Only the {items.length.toLocaleString("en")} rows that were on the screen so far; “Print the whole
          list” prints all of it.
        </caption>
      )}
      <thead>
        <tr>
          {columns.map((column) => (
            <th key={column.key} className={column.right ? "text-right" : "text-left"}>
              {column.title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {items.map((item) => (
          <tr key={item.key}>
            {"heading" in item ? (
              <td colSpan={columns.length}>{item.heading}</td>
            ) : (
              columns.map((column) => (
                <td key={column.key} className={column.right ? "text-right" : ""}>
                  {column.cell(item.row)}
                </td>
              ))
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
