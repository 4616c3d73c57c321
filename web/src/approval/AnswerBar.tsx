import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { markWords } from "../marks/Marks";
import type { Claim } from "./askedColumns";

export type Asked = Schemas["AskedView"];

export type Answer = "approve" | "strike" | "back";

export function AnswerBar({
  asked,
  claim,
  notes,
  onAsk,
}: {
  asked: Asked;
  claim: Claim | undefined;
  notes: number;
  onAsk: (answer: Answer) => void;
}) {
  if (!asked.mayApprove && !asked.mayDecline)
    return <span className="text-faint">{asked.whyNot || "There is nothing to answer."}</span>;
  return (
    <>
      <span className="text-faint text-note max-[640px]:hidden">
        {asked.onBehalfOf
          ? `You answer for ${asked.onBehalfOf}.`
          : `Prepared or changed by ${asked.hands.join(" and ")}.`}{" "}
        x strikes · n notes
      </span>
      <span className="ml-auto max-[640px]:hidden" />
      <Button onClick={() => onAsk("back")}>Send back{notes > 0 ? ` with ${notes}` : ""}…</Button>
      <Button disabled={!claim} onClick={() => onAsk("strike")}>
        Strike…
      </Button>
      {asked.mayApprove ? (
        <Button look="deed" disabled={asked.claims.length === 0} onClick={() => onAsk("approve")}>
          Approve…
        </Button>
      ) : (
        <span className="text-brass text-note">{asked.whyNot}</span>
      )}
    </>
  );
}

export function Questions({
  asked,
  claim,
  notes,
  asking,
  onClose,
}: {
  asked: Asked;
  claim: Claim | undefined;
  notes: Record<string, string>;
  asking: Answer | undefined;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const path = { params: { path: { id: asked.id } } };
  const done = async (said: string, away: boolean) => {
    if (away) navigate("/approval");
    await queries.invalidateQueries();
    toast(said);
  };
  const marked = asked.claims.filter((one) => one.marks.length > 0);
  const blocked = asked.claims.filter((one) => one.inTheWay.length > 0);
  const noted = asked.claims.filter((one) => notes[one.id]);
  return (
    <>
      <DeedDialog
        open={asking === "approve"}
        onClose={onClose}
        title={`Approve “${asked.name}”: ${asked.claims.length} ${asked.claims.length === 1 ? "payment" : "payments"}, ${asked.amount} ${asked.currency}`}
        deed={`Approve ${asked.amount}`}
        run={async () => {
          await call(api.POST("/api/batches/{id}/approve", { ...path, body: { seen: asked.seen } }));
          await done(`Approved: “${asked.name}”.`, true);
        }}
      >
        <p>
          You approve exactly these payees, addresses, bank details, amounts and invoices
          {asked.onBehalfOf && ` for ${asked.onBehalfOf}`}. If any of it changes, you are asked again.
        </p>
        {marked.length > 0 && (
          <p className="text-brass mt-2">
            Marked: {marked.map((one) => `${one.payee} (${markWords(one.marks)})`).join("; ")}.
          </p>
        )}
        {blocked.length > 0 && (
          <p className="text-rust mt-2">
            Will not be printed as it stands:{" "}
            {blocked.map((one) => `${one.payee}: ${one.inTheWay.join("; ")}`).join("; ")}.
          </p>
        )}
      </DeedDialog>
      <DeedDialog
        open={asking === "strike"}
        onClose={onClose}
        title={claim ? `Strike the payment to ${claim.payee}, ${claim.amount}` : "Strike a payment"}
        deed={claim ? `Strike ${claim.amount}` : "Strike"}
        grave
        reason="Why it is not paid now"
        run={async (reason) => {
          await call(
            api.POST("/api/batches/{id}/strike", { ...path, body: { claims: [claim!.id], reason } }),
          );
          await done(
            asked.claims.length === 1
              ? `Nothing is left of “${asked.name}”; it is withdrawn.`
              : `Struck: ${claim!.payee}. The rest stands.`,
            asked.claims.length === 1,
          );
        }}
      >
        <p>
          It leaves the batch; its invoices are open and free again. The other payments and what was approved
          of them stand.
          {asked.claims.length === 1 && " Nothing else is in this batch, so it closes as withdrawn."}
        </p>
      </DeedDialog>
      <DeedDialog
        open={asking === "back"}
        onClose={onClose}
        title={`Send “${asked.name}” back to ${asked.sentBy}`}
        deed="Send back"
        reason={noted.length > 0 ? "What should change, besides" : "What should change"}
        run={async (reason) => {
          await call(
            api.POST("/api/batches/{id}/send-back", {
              ...path,
              body: {
                reason,
                notes: noted.map((one) => ({ claim: one.id, note: notes[one.id]! })),
              },
            }),
          );
          await done(`“${asked.name}” is a draft again.`, true);
        }}
      >
        {noted.length > 0 ? (
          <ul>
            {noted.map((one) => (
              <li key={one.id}>
                <b>{one.payee}:</b> “{notes[one.id]}”
              </li>
            ))}
          </ul>
        ) : (
          <p>
            It becomes a draft and every approval of it is void. A note at a single payment (n) says which one
            you mean.
          </p>
        )}
      </DeedDialog>
    </>
  );
}
