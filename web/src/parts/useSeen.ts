import { defaultRangeExtractor, useVirtualizer } from "@tanstack/react-virtual";
import { useCallback, useEffect, useRef } from "react";

const NEAR_THE_END = 20;
const OVERSCAN = 12;

/** The rows of a list that are seen and drawn, and the cursor among them. */
export function useSeen({
  items,
  at,
  cursor,
  height,
  onRange,
  onEnd,
}: {
  items: { length: number; from: (at: number) => number };
  at: number;
  cursor: string | undefined;
  height: number;
  onRange: ((first: number, last: number) => void) | undefined;
  onEnd: (() => void) | undefined;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    // the headings lie over the first of what is scrolled
    scrollMargin: height,
    scrollPaddingStart: height,
    overscan: OVERSCAN,
    // the row with the cursor is never unmounted
    rangeExtractor: useCallback(
      (range: Parameters<typeof defaultRangeExtractor>[0]) => {
        const seen = defaultRangeExtractor(range);
        return at < 0 || seen.includes(at) ? seen : [...seen, at].sort((a, b) => a - b);
      },
      [at],
    ),
  });
  // what is seen; the cursor's row is drawn wherever it is and does not count
  const first = items.from(virtual.range?.startIndex ?? 0);
  const last = items.from(virtual.range?.endIndex ?? 0);
  useEffect(() => onRange?.(first, last), [first, last, onRange]);
  // a cursor from the address, or one set from beside the list, is brought into view
  const shown = useRef<string | undefined>(undefined);
  useEffect(() => {
    if (cursor !== shown.current && at >= 0) {
      virtual.scrollToIndex(at, { align: "auto" });
      shown.current = cursor;
    }
  }, [cursor, at, virtual]);
  const near = items.length > 0 && (virtual.range?.endIndex ?? 0) >= items.length - NEAR_THE_END;
  useEffect(() => {
    if (onEnd && near) onEnd();
  }, [near, items.length, onEnd]);

  /** Brings a place into view, where the cursor goes to a row of this key. */
  const show = (index: number, key?: string) => {
    if (key !== undefined) shown.current = key;
    virtual.scrollToIndex(index);
  };
  return { scroller, virtual, show };
}
