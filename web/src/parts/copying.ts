import type { ClipboardEvent } from "react";
import { toast } from "sonner";
import { csvOf, type Column, type Item } from "./columns";

/** Puts the chosen rows onto the clipboard as CSV; where not all of them are here, the server writes them. */
export function copied<R>(
  event: ClipboardEvent,
  keys: string[],
  columns: Column<R>[],
  here: () => Item<R>[],
  csv: ((keys: string[]) => Promise<string>) | undefined,
): void {
  // words that somebody marked are theirs to copy
  if (window.getSelection()?.isCollapsed === false) return;
  event.preventDefault();
  const said = () => toast(`${keys.length === 1 ? "1 row" : `${keys.length} rows`} copied as CSV.`);
  if (csv) {
    void csv(keys)
      .then((text) => navigator.clipboard.writeText(text))
      .then(said)
      .catch(() => toast.error("These rows could not be copied. Take the list as CSV instead."));
    return;
  }
  const chosen = new Set(keys);
  const rows = here().flatMap((item) => ("row" in item && chosen.has(item.key) ? [item.row] : []));
  event.clipboardData.setData("text/plain", csvOf(columns, rows));
  said();
}
