import { useQuery } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { RouteSteps } from "../approval/RouteSteps";
import { clock } from "../parts/dates";
import type { Batch } from "./draftDeeds";

/** How far the batch has come on its route, and every answer it ever got. */
export function Approval({ batch, looks }: { batch: Batch; looks: Schemas["LooksView"] | undefined }) {
  const route = useQuery({
    queryKey: ["route", batch.id, batch.version],
    staleTime: 0,
    queryFn: () => call(api.GET("/api/batches/{id}/route", { params: { path: { id: batch.id } } })),
  });
  return (
    <div className="flex flex-col gap-4">
      {batch.state === "DRAFT" && (
        <p className="text-faint">If it were sent as it is now, it would take this route:</p>
      )}
      {route.data && <RouteSteps route={route.data} />}
      {batch.approvals.length > 0 && (
        <section>
          <h3 className="text-faint mb-1 text-note font-semibold">Answers</h3>
          <ul>
            {batch.approvals.map((approval, i) => (
              <li key={i} className={approval.counts ? "" : "text-faint"}>
                {approval.who}
                {approval.onBehalfOf && ` for ${approval.onBehalfOf}`}{" "}
                {approval.outcome === "APPROVED" ? "approved" : "sent it back"}, {clock(approval.at)}
                {approval.reason && `: ${approval.reason}`}
                {!approval.counts && approval.outcome === "APPROVED" && " (void: changed afterwards)"}
              </li>
            ))}
          </ul>
        </section>
      )}
      {looks && looks.struck.length > 0 && (
        <section>
          <h3 className="text-faint mb-1 text-note font-semibold">Struck by approvers</h3>
          {looks.struck.map((one, i) => (
            <p key={i}>
              <s>
                {one.payee} {one.amount}
              </s>{" "}
              <span className="text-faint text-note">
                {one.who}, {clock(one.at)}: {one.reason}
              </span>
            </p>
          ))}
        </section>
      )}
    </div>
  );
}
