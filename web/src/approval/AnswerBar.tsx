import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";

/** Approve exactly this, or send it back with a reason. */
export function AnswerBar({ batch }: { batch: Schemas["BatchView"] }) {
  const [asking, setAsking] = useState<"approve" | "back">();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const path = { params: { path: { id: batch.id } } };
  const done = async (said: string) => {
    await queries.invalidateQueries();
    toast(said);
    navigate("/approval");
  };
  return (
    <>
      <span className="text-faint">
        Prepared or changed by {batch.hands.join(" and ")}; somebody else approves.
      </span>
      <span className="ml-auto" />
      <Button onClick={() => setAsking("back")}>Send back…</Button>
      <Button look="deed" onClick={() => setAsking("approve")}>
        Approve…
      </Button>
      <DeedDialog
        open={asking === "approve"}
        onClose={() => setAsking(undefined)}
        title={`Approve “${batch.name}”: ${batch.claims.length} ${batch.claims.length === 1 ? "payment" : "payments"}, ${batch.amount} ${batch.currency}`}
        deed={`Approve ${batch.amount}`}
        run={async () => {
          await call(api.POST("/api/batches/{id}/approve", { ...path, body: { version: batch.version } }));
          await done(`“${batch.name}” is approved and can be printed.`);
        }}
      >
        <p>
          You approve exactly these payees, addresses, amounts and invoices. If any of it changes, you are
          asked again.
        </p>
      </DeedDialog>
      <DeedDialog
        open={asking === "back"}
        onClose={() => setAsking(undefined)}
        title={`Send “${batch.name}” back to ${batch.preparedBy}`}
        deed="Send back"
        reason="What should change"
        run={async (reason) => {
          await call(
            api.POST("/api/batches/{id}/send-back", { ...path, body: { version: batch.version, reason } }),
          );
          await done(`“${batch.name}” is a draft again.`);
        }}
      />
    </>
  );
}
