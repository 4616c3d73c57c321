import type { Schemas } from "../api/client";

/** Where a batch is worked on once it is approved, by how its payments leave. */
export const WORKS_AT: Record<Schemas["ListedView"]["leaves"], string> = {
  ON_PAPER: "/print",
  BY_FILE: "/file",
  FROM_LIST: "/wires",
  ELSEWHERE: "/batches",
};
