import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef } from "react";
import { api, call } from "../api/client";
import { KEPT_LISTS, type Arrangement } from "./keptLists";

const RESTED_MS = 400;
const AS_IT_COMES: Arrangement = { columns: [], descending: false, folded: [] };

/** How somebody looks at a list: it changes at once and is kept for them when it rests, on whatever machine they sit down. */
export function useArrangement(list: string): [Arrangement, (next: Partial<Arrangement>) => void] {
  const queries = useQueryClient();
  const kept = useQuery(KEPT_LISTS);
  const keeping = useMutation({
    mutationFn: (arrangement: Arrangement) =>
      call(api.POST("/api/lists/{list}", { params: { path: { list } }, body: arrangement })),
    scope: { id: `list-${list}` },
    retry: 3,
  });
  const { mutate } = keeping;
  const waits = useRef<{ timer: ReturnType<typeof setTimeout>; now: () => void }>(undefined);
  // whoever leaves the page at once keeps it all the same
  useEffect(() => () => waits.current?.now(), []);
  const arrange = useCallback(
    (next: Partial<Arrangement>) => {
      const known = queries.getQueryData(KEPT_LISTS.queryKey);
      // what is kept and on its way is not overwritten by what it looks like without it
      if (!known && queries.isFetching({ queryKey: KEPT_LISTS.queryKey })) return;
      const before = known ?? {};
      const now = { ...AS_IT_COMES, ...before[list], ...next };
      queries.setQueryData(KEPT_LISTS.queryKey, { ...before, [list]: now });
      clearTimeout(waits.current?.timer);
      const keep = () => {
        clearTimeout(waits.current?.timer);
        waits.current = undefined;
        mutate(now);
      };
      waits.current = { timer: setTimeout(keep, RESTED_MS), now: keep };
    },
    [queries, list, mutate],
  );
  return [kept.data?.[list] ?? AS_IT_COMES, arrange];
}
