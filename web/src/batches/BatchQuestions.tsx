import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { toast } from "sonner";
import { RouteSteps } from "../approval/RouteSteps";
import { api, call } from "../api/client";
import { DeedDialog } from "../parts/DeedDialog";
import type { Batch, Deeds, Edits } from "./draftDeeds";

export function Questions({
  batch,
  asking,
  onClose,
  edits,
  deeds,
}: {
  batch: Batch;
  asking: "send" | "withdraw" | "gather" | undefined;
  onClose: () => void;
  edits: Edits;
  deeds: Deeds;
}) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const at = { params: { path: { id: batch.id } }, body: { version: batch.version } };
  const gathering = useQuery({
    queryKey: ["gathering", batch.id, batch.version],
    enabled: asking === "gather",
    staleTime: 0,
    queryFn: () => call(api.GET("/api/batches/{id}/gathering", { params: { path: { id: batch.id } } })),
  });
  const difference = gathering.data;
  const route = useQuery({
    queryKey: ["route", batch.id, batch.version],
    enabled: asking === "send",
    staleTime: 0,
    queryFn: () => call(api.GET("/api/batches/{id}/route", { params: { path: { id: batch.id } } })),
  });
  return (
    <>
      <DeedDialog
        open={asking === "send"}
        onClose={onClose}
        title={`Send “${batch.name}” for approval: ${batch.claims.length} ${batch.claims.length === 1 ? "claim" : "claims"}, ${batch.amount} ${batch.currency}`}
        deed="Send for approval"
        run={async () => {
          await call(api.POST("/api/batches/{id}/send", at));
          await queries.invalidateQueries();
          toast(`“${batch.name}” waits for approval.`);
        }}
      >
        <p className="mb-3">
          Payee, address and bank details of every claim stay as they are now. A change afterwards voids the
          approval.
        </p>
        {route.data && <RouteSteps route={route.data} />}
      </DeedDialog>
      <DeedDialog
        open={asking === "withdraw"}
        onClose={onClose}
        title={`Withdraw “${batch.name}”`}
        deed="Withdraw the batch"
        grave
        run={async () => {
          await call(api.POST("/api/batches/{id}/withdraw", at));
          await queries.invalidateQueries();
          navigate("/batches");
        }}
      >
        <p>The batch is kept and can still be looked at; its invoices are free for another batch.</p>
      </DeedDialog>
      <DeedDialog
        open={asking === "gather"}
        onClose={onClose}
        title={`Gather “${batch.name}” again`}
        deed={
          difference
            ? `Take ${difference.added.length} in, ${difference.removed.length} out`
            : "Apply the difference"
        }
        run={() => edits.must((v) => deeds.gatherAgain(v, difference?.shown ?? ""), "Gathered again.")}
      >
        {gathering.error && <p className="text-rust">{gathering.error.message}</p>}
        {difference && (
          <div className="flex max-h-80 flex-col gap-2 overflow-auto">
            {difference.added.length + difference.removed.length === 0 && (
              <p>The criteria would take exactly what the batch has.</p>
            )}
            {difference.added.map((one) => (
              <p key={one.invoice}>
                <b className="text-greentext">in</b> {one.payee}{" "}
                <span className="font-mono text-note">{one.reference}</span>, pays {one.open}
              </p>
            ))}
            {difference.removed.map((one) => (
              <p key={one.invoice}>
                <b className="text-brass">out</b> entry {one.invoice}: {one.why}
              </p>
            ))}
            <p className="text-faint">What was added, changed or taken out by hand stays as it is.</p>
          </div>
        )}
      </DeedDialog>
    </>
  );
}
