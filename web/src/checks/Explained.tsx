import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";

/** A number whose paper nobody has: what is known of it, and what can become of it. */
export function Explained({ id, number }: { id: number; number: Schemas["NumberView"] }) {
  const queries = useQueryClient();
  const session = useSession();
  const [asking, setAsking] = useState(false);
  const may = session.roles.some((role) => role === "CLERK" || role === "CONTROLLER");
  return (
    <>
      <p className="callout">
        {number.then ? `What is known of its paper: ${number.then}. ` : "Nothing is known of its paper. "}
        Found again, it can be printed on: type it as the first number in the tray where numbers are asked
        for.
      </p>
      {may && (
        <Button className="self-start" onClick={() => setAsking(true)}>
          Explain it…
        </Button>
      )}
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`Explain number ${number.number}`}
        deed="Explain it"
        reason="Where its paper went, as the register keeps it"
        run={async (why) => {
          await call(api.POST("/api/checks/{id}/explain", { params: { path: { id } }, body: { why } }));
          await queries.invalidateQueries();
        }}
      />
    </>
  );
}
