import { useQuery } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";

export type Wires = Schemas["WiresView"];
export type WireLine = Schemas["WireLine"];

/** What of a batch waits for the list, what stands on it, and what the bank said of each. */
export function useWires(batch: number | undefined) {
  return useQuery({
    queryKey: ["wires", batch],
    enabled: batch !== undefined,
    queryFn: () => call(api.GET("/api/batches/{id}/wires", { params: { path: { id: batch! } } })),
  });
}
