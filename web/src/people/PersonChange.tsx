import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { words } from "./roles";

/** Roles that let money out, or the password of who holds them: a second person confirms or refuses. */
export function PersonChange({ change }: { change: Schemas["PersonChangeView"] }) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState<"confirm" | "refuse">();
  const path = { params: { path: { id: change.id } } };
  const what = change.password ? "a new password" : `the roles ${words(change.roles)}`;
  const done = async (said: string) => {
    await queries.invalidateQueries();
    toast(said);
  };
  return (
    <section aria-label={`Change of ${change.name}`} className="callout mb-4 flex flex-col gap-2">
      <p>
        <b>{change.name}</b> gets {what}, says {change.proposedBy}. It waits for a second person.
      </p>
      {change.mayDecide && (
        <div className="flex gap-2">
          <Button look="deed" onClick={() => setAsking("confirm")}>
            Confirm…
          </Button>
          <Button onClick={() => setAsking("refuse")}>Refuse it…</Button>
        </div>
      )}
      <DeedDialog
        open={asking !== undefined}
        onClose={() => setAsking(undefined)}
        title={asking === "confirm" ? `Give ${change.name} ${what}` : `Refuse ${what} for ${change.name}`}
        deed={asking === "confirm" ? "Confirm the change" : "Refuse the change"}
        run={async () => {
          if (asking === "confirm") {
            await call(api.POST("/api/people/changes/{id}/confirm", path));
            await done(`${change.name} has ${what}; their sessions ended.`);
          } else {
            await call(api.POST("/api/people/changes/{id}/refuse", path));
            await done("Refused; nothing changed.");
          }
        }}
      >
        <p>
          {asking === "confirm"
            ? "You vouch for it together with whoever proposed it. It holds at once."
            : "Everything stays as it is."}
        </p>
      </DeedDialog>
    </section>
  );
}
