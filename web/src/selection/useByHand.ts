import { useCallback } from "react";
import type { Schemas } from "../api/client";
import { readRanges, writeRanges } from "../parts/ranges";
import type { Change } from "./criteria";
import type { DueView, Row } from "./useDueList";

/** What a clerk takes out or in by hand, as the address keeps it. */
export function useByHand(values: Record<string, string | undefined>, change: Change) {
  const mark = useCallback(
    (entries: number[], take: boolean, how: (entry: number) => Row | undefined) => {
      const out = readRanges(values.out);
      const into = readRanges(values.in);
      for (const entry of entries) {
        if (take) {
          const row = how(entry);
          // what the criteria take anyway needs no mark
          if (!out.delete(entry) && row && !row.taken && row.movable) into.add(entry);
        } else if (!into.delete(entry)) {
          out.add(entry);
        }
      }
      change({ out: writeRanges(out) || undefined, in: writeRanges(into) || undefined });
    },
    [values.out, values.in, change],
  );
  const moveClaim = useCallback(
    (view: DueView, group: Schemas["GroupView"], take: boolean) => {
      const out = readRanges(values.out);
      const into = readRanges(values.in);
      for (const entry of view.order.slice(group.first, group.first + group.count)) {
        // what one key took in, the other gives back to where it was
        const back = (take ? out : into).delete(entry);
        if (take || !back) (take ? into : out).add(entry);
      }
      change({ out: writeRanges(out) || undefined, in: writeRanges(into) || undefined });
    },
    [values.out, values.in, change],
  );
  /** One that the list does not have, or leaves out, comes in and gets the cursor. */
  const takeIn = (entry: number) => {
    const out = readRanges(values.out);
    const into = readRanges(values.in);
    if (!out.delete(entry)) into.add(entry);
    change({
      out: writeRanges(out) || undefined,
      in: writeRanges(into) || undefined,
      at: String(entry),
    });
  };
  const count = readRanges(values.out).size + readRanges(values.in).size;
  return { mark, moveClaim, takeIn, count };
}
