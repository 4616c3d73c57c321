import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { Entry } from "./Entry";
import type { Undo } from "./useUndo";

export const verb = (view: Schemas["UndoView"]) => (view.paper ? "Void" : "Reverse");

/** The deed of undoing, with the one question before it. */
export function UndoDeed({ undo, done }: { undo: Undo; done?: () => void }) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  const view = undo.would.data;
  if (!view) return null;
  const deed = view.byTwo
    ? `Ask a second person to ${verb(view).toLowerCase()} ${view.what}`
    : `${verb(view)} ${view.what}`;
  const [one] = view.payments;
  return (
    <>
      <Button
        look="grave"
        className="self-start"
        disabled={view.refused > 0 || undo.would.isPlaceholderData}
        onClick={() => setAsking(true)}
      >
        {deed}…
      </Button>
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`${verb(view)} ${view.what}${view.payments.length === 1 && one ? ` to ${one.payee}` : ""}, ${view.amounts
          .map((sum) => sum.text)
          .join(" and ")}`}
        deed={deed}
        grave
        wide
        reason={view.byTwo ? "Why, for whoever agrees" : `Why it is ${view.paper ? "voided" : "reversed"}`}
        run={async (reason) => {
          const answer = await call(api.POST("/api/undoing", { body: { asked: undo.asked, reason } }));
          await queries.invalidateQueries();
          undo.forget();
          toast(
            answer.waits
              ? "Asked. It is done once a second person agrees; nothing is written before."
              : `Done: ${view.what} ${view.payments.length === 1 ? "is" : "are"} ${view.paper ? "voided" : "reversed"}.`,
          );
          done?.();
        }}
      >
        <UndoAll view={view} />
      </DeedDialog>
    </>
  );
}

/** What all of it writes together, and who has to agree. */
export function UndoAll({ view }: { view: Schemas["UndoView"] }) {
  const periods = [...new Set(view.recap.map((line) => line.period))];
  const [one] = view.payments;
  return (
    <div className="flex flex-col gap-3">
      {periods.map((period) => (
        <Entry key={period} head={period} lines={view.recap.filter((line) => line.period === period)} />
      ))}
      <p>
        Locked months do not move.{" "}
        {view.byTwo &&
          "Invoices are cancelled with it, so a second person has to agree: neither you nor whoever prepared the payment."}
      </p>
      {view.payments.length === 1 && one?.bank && <p>{one.bank}</p>}
    </div>
  );
}
