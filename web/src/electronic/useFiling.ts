import { useQuery } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";

export type Filing = Schemas["FilingView"];
export type FilingLine = Schemas["FilingLine"];
export type PaymentFile = Schemas["PaymentFileView"];

/** What of a batch waits for a file, what stands in one, and its files. */
export function useFiling(batch: number | undefined) {
  return useQuery({
    queryKey: ["filing", batch],
    enabled: batch !== undefined,
    queryFn: () => call(api.GET("/api/batches/{id}/filing", { params: { path: { id: batch! } } })),
    // the bank's answer arrives by itself
    refetchInterval: 20_000,
  });
}

/** What can be posted: the bank took it, and the ledger has it not. */
export function taken(filing: Filing): FilingLine[] {
  return filing.payments.filter((one) => one.step === "TAKEN");
}
