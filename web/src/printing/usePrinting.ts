import { useQuery } from "@tanstack/react-query";
import { api, call } from "../api/client";

/** Turn, numbers, runs and sheets of one batch. */
export function usePrinting(batch: number | undefined) {
  return useQuery({
    queryKey: ["printing", batch],
    enabled: batch !== undefined,
    refetchInterval: 20_000,
    queryFn: () => call(api.GET("/api/batches/{id}/printing", { params: { path: { id: batch! } } })),
  });
}
