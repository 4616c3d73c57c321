import { useCallback, useRef, useState } from "react";
import { useKept } from "../parts/useKept";
import type { Layout } from "./measures";

/** What is being made of a series' layout, and what it was begun from. */
interface Draft {
  layout: Layout;
  /** The newest version then. */
  newest: number;
}

const MOST_STEPS = 200;

/**
 * A layout in the making: it stays in this tab until it is kept or thrown away, and each step is undone and done again.
 *
 * @param given what is printed on now, and the newest version
 */
export function useDraft(series: number, given: Draft) {
  const [draft, keep, forget] = useKept<Draft>(`layout ${series}`, given);
  const [past, setPast] = useState<Layout[]>([]);
  const [future, setFuture] = useState<Layout[]>([]);
  const { layout } = draft;
  const together = useRef<string>(undefined);
  /** `as`: changes of one name, such as one pull of the mouse, are one step. */
  const change = useCallback(
    (next: Layout, as?: string) => {
      if (as === undefined || as !== together.current)
        setPast((steps) => [...steps.slice(-MOST_STEPS), layout]);
      together.current = as;
      setFuture([]);
      keep((now) => ({ ...now, layout: next }));
    },
    [keep, layout],
  );
  const back = useCallback(
    (from: Layout[], take: (steps: Layout[]) => void, give: (add: (steps: Layout[]) => Layout[]) => void) => {
      const next = from.at(-1);
      if (!next) return;
      together.current = undefined;
      take(from.slice(0, -1));
      give((steps) => [...steps, layout]);
      keep((now) => ({ ...now, layout: next }));
    },
    [keep, layout],
  );
  return {
    layout,
    newest: draft.newest,
    changed: JSON.stringify(layout) !== JSON.stringify(given.layout),
    change,
    undo: past.length > 0 ? () => back(past, setPast, setFuture) : undefined,
    redo: future.length > 0 ? () => back(future, setFuture, setPast) : undefined,
    /** Goes on from what somebody else kept meanwhile. */
    onto: (newest: number) => keep((now) => ({ ...now, newest })),
    leave: () => {
      setPast([]);
      setFuture([]);
      forget();
    },
  };
}
