import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { clock } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";

/** What travels between the company and the bank of an account. */
export function useExchange(account: number | undefined) {
  return useQuery({
    queryKey: ["bank-exchange", account],
    enabled: account !== undefined,
    queryFn: () => call(api.GET("/api/bank-accounts/{id}/exchange", { params: { path: { id: account! } } })),
    // what is on its way arrives by itself
    refetchInterval: (query) =>
      query.state.data?.sendings.some((one) => one.state === "WAITING") ? 1_500 : false,
  });
}

/** How far one file is on its way, and what can be done about it. */
export function Sending({
  file,
  account,
  clerk,
}: {
  file: Pick<Schemas["FileView"], "id" | "serial" | "state">;
  account: number;
  clerk: boolean;
}) {
  const queries = useQueryClient();
  const exchange = useExchange(account);
  const [asking, setAsking] = useState(false);
  const path = { params: { path: { id: file.id } } };
  const done = { done: () => queries.invalidateQueries() };
  const send = useDeed(() => call(api.POST("/api/bank-files/{id}/send", path)), done);
  const again = useDeed(() => call(api.POST("/api/bank-files/{id}/send-again", path)), done);
  const notThere = useDeed(
    () => call(api.POST("/api/bank-files/{id}/settle", { ...path, body: { came: false } })),
    done,
  );
  if (!exchange.data?.by) return null;
  const sending = exchange.data.sendings.find((one) => one.file === file.id);
  if (!sending)
    return file.state === "MADE" && clerk ? (
      <>
        <button className="go min-h-6" disabled={send.busy} onClick={() => void send.run()}>
          Send it by {exchange.data.by}
        </button>
        <Refusal deed={send} />
      </>
    ) : null;
  const stuck = sending.state === "STUCK" || sending.state === "UNKNOWN";
  return (
    <div className="w-full">
      <div className={`text-note ${stuck ? "text-rust" : "text-faint"}`}>
        {sending.words}
        {sending.sentAt && `, ${clock(sending.sentAt)}`}
        {sending.trouble && `: ${sending.trouble}`}
        {sending.state === "WAITING" && sending.tries > 0 && ` Next at ${clock(sending.nextTryAt)}.`}
      </div>
      {clerk && sending.state === "STUCK" && file.state === "MADE" && (
        <button className="go min-h-6" disabled={again.busy} onClick={() => void again.run()}>
          Try again
        </button>
      )}
      {clerk && sending.state === "UNKNOWN" && !sending.answered && (
        <span className="flex flex-wrap gap-3">
          <button className="go min-h-6" onClick={() => setAsking(true)}>
            The bank has it…
          </button>
          <button className="go min-h-6" disabled={notThere.busy} onClick={() => void notThere.run()}>
            The bank has it not: send it
          </button>
        </span>
      )}
      <Refusal deed={again.refused ? again : notThere} />
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`The bank has file ${file.serial}`}
        deed="It has it"
        run={async () => {
          await call(api.POST("/api/bank-files/{id}/settle", { ...path, body: { came: true } }));
          await queries.invalidateQueries();
        }}
      >
        <p>It is not sent again. Say beside the list what the bank answered, once it does.</p>
      </DeedDialog>
    </div>
  );
}
