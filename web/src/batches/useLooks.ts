import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, call } from "../api/client";
import { useSession } from "../frame/session";
import { useDeed } from "../parts/useDeed";
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
  const answering = useDeed(
    ({ mark, note }: { mark: string; note: string }) =>
      call(api.POST("/api/batches/{id}/marks", { ...path, body: { key: mark, note } })),
    { done: (now) => queries.setQueryData(key, now) },
  );
  const may = session.roles.includes("CLERK") && (batch.state === "DRAFT" || batch.state === "IN_APPROVAL");
  return {
    view: looks.data,
    answer: may ? (mark: string, note: string) => answering.run({ mark, note }) : undefined,
  };
}
