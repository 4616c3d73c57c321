import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import type { Batch } from "./draftDeeds";

/** Moves a payment to another way: into a draft that pays so, or a new one. */
export function MovePayment({ batch, claim }: { batch: Batch; claim: Schemas["ClaimView"] }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  const [chosen, setChosen] = useState<string>();
  const path = { id: batch.id, claim: claim.id };
  const ways = useQuery({
    queryKey: ["claim-ways", batch.id, batch.version, claim.id],
    enabled: asking,
    queryFn: () => call(api.GET("/api/batches/{id}/claims/{claim}/ways", { params: { path } })),
  });
  const open = (ways.data ?? []).filter((way) => !way.against);
  const targets = open.flatMap((way) => [
    ...way.drafts.map((draft) => ({
      key: `${way.way} ${draft.batch}`,
      way,
      into: draft.batch,
      words: `“${draft.name}”`,
    })),
    { key: `${way.way} new`, way, into: undefined, words: "a new batch" },
  ]);
  const target = targets.find((one) => one.key === chosen) ?? targets[0];
  return (
    <div>
      <Button onClick={() => setAsking(true)}>Pay it another way…</Button>
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`Pay ${claim.payee} another way`}
        deed={target ? `Pay it by ${target.way.by}` : "Pay it another way"}
        run={async () => {
          if (!target) return;
          const into = await call(
            api.POST("/api/batches/{id}/claims/{claim}/way", {
              params: { path },
              body: {
                version: batch.version,
                account: target.way.account,
                way: target.way.way,
                into: target.into,
              },
            }),
          );
          await queries.invalidateQueries();
          navigate(`/batches/${into}`);
        }}
      >
        {ways.error && <p className="callout-wrong">{ways.error.message}</p>}
        {ways.data && targets.length === 0 && (
          <p>No other way reaches this payee. What is against each stands below.</p>
        )}
        {targets.length > 0 && (
          <fieldset className="flex flex-col gap-1">
            <legend className="text-faint mb-1 text-note font-semibold">
              Its {claim.lines.filter((line) => line.kind === "INVOICE").length} invoices go into
            </legend>
            {targets.map((one) => (
              <label key={one.key} className="flex min-h-6 items-center gap-2">
                <input
                  type="radio"
                  name="moved-into"
                  className="min-h-0"
                  checked={one === target}
                  onChange={() => setChosen(one.key)}
                />
                {one.words}, by {one.way.name} from {one.way.accountName}
              </label>
            ))}
          </fieldset>
        )}
        {(ways.data ?? [])
          .filter((way) => way.against)
          .map((way) => (
            <p key={way.way} className="text-faint text-note">
              By {way.name}: {way.against}
            </p>
          ))}
        <p className="text-faint">
          Credits that reduce it are released here and can be used there. The other payments stay as they are.
        </p>
      </DeedDialog>
    </div>
  );
}
