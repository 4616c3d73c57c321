import { useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { useDeed } from "../parts/useDeed";

/** Stubs given again: marked copies to print, or by mail to whoever has an address; the checks stay as they are. */
export function StubsAgain({ rows }: { rows: Schemas["NumberView"][] }) {
  const { roles } = useSession();
  const queries = useQueryClient();
  const payments = rows.flatMap((row) =>
    row.payment && !row.byHand && row.state !== "TAKEN" && row.state !== "PRINTED" ? [row.payment] : [],
  );
  const mailing = useDeed(() => call(api.POST("/api/stubs/mail", { body: { payments } })), {
    done: () => queries.invalidateQueries({ queryKey: ["mail"] }),
    said: ({ sent, without }) =>
      `${sent} ${sent === 1 ? "list waits" : "lists wait"} to be sent.` +
      (without.length ? ` Not to ${without.join(", ")}: no address, or no payment any more.` : ""),
  });
  if (payments.length === 0) return null;
  return (
    <>
      <a
        className="go"
        href={`/api/stubs/pdf?${payments.map((id) => `payments=${id}`).join("&")}`}
        target="_blank"
        rel="noreferrer"
      >
        Stubs again as PDF
      </a>
      {(roles.includes("CLERK") || roles.includes("CONTROLLER")) && (
        <Button disabled={mailing.busy} onClick={() => void mailing.run()}>
          Send them by mail
        </Button>
      )}
    </>
  );
}
