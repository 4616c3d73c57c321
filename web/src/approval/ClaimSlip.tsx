import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { clock, dayMonth } from "../parts/dates";
import { Face } from "../parts/Face";
import { useRest } from "../parts/useRest";
import { Marks } from "../marks/Marks";
import { RouteSteps } from "./RouteSteps";

/** As many characters as a reference has beside what it is for. */
const UNBROKEN = 18;

/** The payment under the cursor: why it deserves a look, its invoices, its check; below it how far the batch has come. */
export function ClaimSlip({
  asked,
  claim,
  note,
  onNote,
  onStep,
}: {
  asked: Schemas["AskedView"];
  claim: Schemas["AskedClaim"] | undefined;
  note: string;
  onNote: ((text: string) => void) | undefined;
  onStep: (by: number) => void;
}) {
  const place = claim ? asked.claims.findIndex((one) => one.id === claim.id) : -1;
  return (
    <div className="flex flex-col gap-4">
      {claim && (
        <section aria-label="Payment" className="flex flex-col gap-3">
          <header className="flex items-start gap-2">
            <div className="min-w-0">
              <h2 className="text-base font-bold">
                <Link className="go" to={`/vendors/${claim.vendor}`}>
                  {claim.payee}
                </Link>
              </h2>
              <p className="text-lg font-bold">
                {claim.amount} {asked.currency}
                {claim.was && (
                  <span className="text-faint ml-2 text-note font-normal">
                    was <s>{claim.was}</s>
                  </span>
                )}
                {claim.since === "NEW" && (
                  <span className="text-brass ml-2 text-note font-normal">new since it was sent before</span>
                )}
              </p>
            </div>
            <span className="ml-auto flex items-center gap-1">
              <Button aria-label="Payment before" disabled={place <= 0} onClick={() => onStep(-1)}>
                ‹
              </Button>
              <Button
                aria-label="Next payment"
                disabled={place >= asked.claims.length - 1}
                onClick={() => onStep(1)}
              >
                ›
              </Button>
            </span>
          </header>
          {claim.inTheWay.map((words) => (
            <p key={words} className="callout-wrong">
              {words}.{" "}
              {asked.elsewhere ? "It was paid nevertheless." : "It is refused at printing as it stands."}
            </p>
          ))}
          <Marks marks={claim.marks} />
          <Lines batch={asked.id} claim={claim} />
          {onNote && (
            <label className="flex flex-col gap-1">
              <span className="text-faint text-note font-semibold">
                Note for its preparer, sent when you send the batch back
              </span>
              <textarea
                id="claim-note"
                key={claim.id}
                rows={2}
                maxLength={500}
                value={note}
                onChange={(event) => onNote(event.target.value)}
              />
            </label>
          )}
          <Check batch={asked} claim={claim} />
        </section>
      )}
      {asked.struck.length > 0 && (
        <section>
          <h3 className="text-faint mb-1 text-note font-semibold">Struck</h3>
          {asked.struck.map((one, i) => (
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
      {asked.notes.length > 0 && (
        <section>
          <h3 className="text-faint mb-1 text-note font-semibold">Noted when it was sent back before</h3>
          {asked.notes.map((one) => (
            <p key={one.claim}>
              <b>{one.payee}:</b> “{one.note}” <span className="text-faint text-note">{one.who}</span>
            </p>
          ))}
        </section>
      )}
      {asked.route && <RouteSteps route={asked.route} />}
    </div>
  );
}

function Lines({ batch, claim }: { batch: number; claim: Schemas["AskedClaim"] }) {
  const rested = useRest(claim.id);
  const lines = useQuery({
    queryKey: ["asked-lines", batch, rested, claim.amount],
    queryFn: () =>
      call(api.GET("/api/approval/{id}/claims/{claim}", { params: { path: { id: batch, claim: rested } } })),
  });
  const rows = rested === claim.id ? (lines.data ?? []) : [];
  const saved = rows.some((line) => line.discount || line.credit);
  return (
    <table className="w-full">
      <caption className="text-faint mb-1 text-left text-note font-semibold">
        {claim.number ? (
          <>
            Paid as <span className="font-mono">{claim.number}</span>, for
          </>
        ) : (
          `${claim.lines} ${claim.lines === 1 ? "line" : "lines"}`
        )}
      </caption>
      <thead className="text-faint text-note">
        <tr className="border-hair border-b">
          <th className="text-left font-semibold">Reference</th>
          <th className="text-left font-semibold">For</th>
          <th className="text-right font-semibold">Due</th>
          {saved && <th className="text-right font-semibold">Less</th>}
          <th className="text-right font-semibold">Pays</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((line) => (
          <tr key={line.line} className="border-hair border-b align-top">
            <td
              className={`py-0.5 pr-2 font-mono text-note ${line.reference.length > UNBROKEN ? "" : "whitespace-nowrap"}`}
            >
              {line.reference}
            </td>
            <td className="text-faint pr-2 text-note">
              {line.kind === "CREDIT" ? "credit" : line.what}
              {line.invoiceDate && `, ${dayMonth(line.invoiceDate)}`}
            </td>
            <td className="text-faint text-right text-note whitespace-nowrap">
              {line.kind !== "CREDIT" && line.dueDate ? dayMonth(line.dueDate) : ""}
            </td>
            {saved && (
              <td className="text-faint text-right text-note">
                {[line.discount, line.credit].filter(Boolean).join(" + ")}
              </td>
            )}
            <td className="text-right">{line.kind === "CREDIT" ? line.gross : line.cash}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Check({ batch, claim }: { batch: Schemas["AskedView"]; claim: Schemas["AskedClaim"] }) {
  const rested = useRest(claim.id);
  const slip = useQuery({
    queryKey: ["asked-slip", batch.id, batch.seen, rested],
    queryFn: () =>
      call(
        api.GET("/api/slips/claims/{batch}/{claim}", {
          params: { path: { batch: batch.id, claim: rested } },
        }),
      ),
  });
  return (
    <>
      {slip.data?.face && <Face page={slip.data.face} label={`Check to ${claim.payee}, not a check`} />}
      <p className="text-faint text-note">
        {batch.elsewhere ? "Known at" : "Goes to"} {claim.address}
        {claim.bank && `; ${claim.bank}`}
      </p>
    </>
  );
}
