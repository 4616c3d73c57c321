import { useQuery, useQueryClient } from "@tanstack/react-query";
import { toast } from "sonner";
import { api, call } from "../api/client";
import { useSession } from "../frame/session";
import type { Batch } from "./draftDeeds";

/** What to look at in a batch: marks, an approver's notes, what was struck; and how a clerk answers a mark. */
export function useLooks(batch: Batch) {
  const session = useSession();
  const queries = useQueryClient();
  const key = ["looks", batch.id, batch.version];
  const path = { params: { path: { id: batch.id } } };
  const looks = useQuery({
    queryKey: key,
    queryFn: () => call(api.GET("/api/batches/{id}/looks", path)),
  });
  const may = session.roles.includes("CLERK") && (batch.state === "DRAFT" || batch.state === "IN_APPROVAL");
  return {
    view: looks.data,
    answer: may
      ? async (mark: string, note: string) => {
          try {
            queries.setQueryData(
              key,
              await call(api.POST("/api/batches/{id}/marks", { ...path, body: { key: mark, note } })),
            );
            return true;
          } catch (error) {
            toast.error(error instanceof Error ? error.message : "That failed. Try again.");
            return false;
          }
        }
      : undefined,
  };
}
