import { useQuery } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { Amount } from "../workline/Amount";
import { shortDate } from "../parts/dates";
import type { Column } from "../parts/Grid";

export type BatchState = "DRAFT" | "IN_APPROVAL" | "APPROVED" | "NUMBERED" | "FILED" | "POSTED" | "WITHDRAWN";

/** Batches in these states; all when none is named. */
export function useBatches(states: BatchState[]) {
  return useQuery({
    queryKey: ["batches", states],
    queryFn: () => call(api.GET("/api/batches", { params: { query: { state: states } } })),
  });
}

export const BATCH_COLUMNS: Column<Schemas["ListedView"]>[] = [
  { key: "batch", title: "Batch", width: "minmax(180px,2fr)", cell: (b) => b.name },
  {
    key: "state",
    title: "State",
    width: "130px",
    cell: (b) => (
      <span className={b.sentBackReason ? "text-brass" : ""}>
        {b.partlyPosted ? "partly posted" : b.sentBackReason ? "sent back" : b.stateWords}
      </span>
    ),
  },
  { key: "account", title: "Account", width: "minmax(90px,1fr)", cell: (b) => b.account },
  { key: "by", title: "By", width: "104px", cell: (b) => <span className="text-faint">{b.by}</span> },
  {
    key: "checks-of",
    title: "Check date",
    width: "94px",
    value: (b) => b.checkDate,
    cell: (b) => shortDate(b.checkDate),
  },
  { key: "claims", title: "Claims", width: "56px", right: true, cell: (b) => b.claims },
  {
    key: "amount",
    title: "Amount",
    width: "110px",
    right: true,
    words: (b) => b.amount.text,
    cell: (b) => <Amount of={b.amount} />,
  },
];
