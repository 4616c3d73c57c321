import { useState } from "react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { shortDate } from "../parts/dates";
import { Dialog } from "../parts/Dialog";
import { Field } from "../parts/Field";
import { useDeed } from "../parts/useDeed";
import { Refusal } from "../parts/Refusal";
import { useKept } from "../parts/useKept";
import { Vial } from "../parts/Vial";

/** Which payments by company card stand on this statement of its issuer, and whether they come to what it bills. */
export function StatementPart({ document }: { document: Schemas["InvoicePage"] }) {
  const statement = useQuery({
    queryKey: ["statement", document.id],
    queryFn: () => call(api.GET("/api/invoices/{id}/statement", { params: { path: { id: document.id } } })),
  });
  if (!statement.data)
    return statement.error ? <p className="callout-wrong">{statement.error.message}</p> : null;
  // a document that bills the card nothing, such as its yearly fee
  if (statement.data.level && !statement.data.payments.some((one) => one.matched)) return null;
  return <Matching invoice={document.id} statement={statement.data} />;
}

function Matching({ invoice, statement }: { invoice: number; statement: Schemas["StatementView"] }) {
  const { roles } = useSession();
  const queries = useQueryClient();
  const before = statement.payments.filter((one) => one.matched).map((one) => one.payment);
  const [wanted, want, forget] = useKept<number[] | undefined>(`statement ${invoice}`, undefined);
  const chosen = new Set(wanted ?? before);
  const changed = chosen.size !== before.length || before.some((one) => !chosen.has(one));
  const keep = useDeed(
    () =>
      call(
        api.POST("/api/invoices/{id}/statement", {
          params: { path: { id: invoice } },
          body: { payments: statement.payments.map((one) => one.payment).filter((one) => chosen.has(one)) },
        }),
      ),
    {
      done: async () => {
        forget();
        await queries.invalidateQueries();
      },
      said: (now) => `${now.matched.text} of ${now.billed.text} stand on it.`,
    },
  );
  const open = roles.includes("CLERK") && !statement.settled;
  return (
    <section aria-label="Payments by card on it">
      <h2 className="mb-1 text-base font-bold">Payments by card on it</h2>
      <p className="mb-2 flex flex-wrap items-center gap-2">
        It bills <b>{statement.billed.text}</b> for {statement.card}
        <Vial bubble={statement.level ? "LEVEL" : "SHORT"} />
        <span>
          <b>{statement.matched.text}</b> of it stand on payments recorded here
          {!statement.level && <span className="text-brass">, {statement.rest.text} on none</span>}.
        </span>
      </p>
      {statement.payments.length === 0 ? (
        <p className="text-faint">No payment by this card waits for a statement.</p>
      ) : (
        <table className="w-full">
          <thead className="text-faint text-note text-left">
            <tr>
              <th className="w-24 font-semibold">On it</th>
              <th className="font-semibold">Paid on</th>
              <th className="font-semibold">Number</th>
              <th className="font-semibold">Payee</th>
              <th className="text-right font-semibold">Amount</th>
            </tr>
          </thead>
          <tbody>
            {statement.payments.map((one) => (
              <tr key={one.payment} className="border-hair border-t">
                <td className="py-0.5">
                  <input
                    type="checkbox"
                    className="min-h-0"
                    aria-label={`Payment ${one.number} stands on it`}
                    disabled={!open}
                    checked={chosen.has(one.payment)}
                    onChange={(event) =>
                      want(
                        event.target.checked
                          ? [...chosen, one.payment]
                          : [...chosen].filter((id) => id !== one.payment),
                      )
                    }
                  />
                </td>
                <td>{shortDate(one.paidOn)}</td>
                <td className="font-mono text-note">{one.number}</td>
                <td>{one.payee}</td>
                <td className="text-right">{one.amount.text}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Refusal deed={keep} />
      {open && statement.payments.length > 0 && (
        <ByLines invoice={invoice} onMatched={(found) => want([...new Set([...chosen, ...found])])} />
      )}
      {statement.settled ? (
        <p className="text-faint mt-2">Something of it is paid, so what stands on it stays.</p>
      ) : (
        changed &&
        open && (
          <div className="mt-3 flex gap-2">
            <Button look="deed" disabled={keep.busy} onClick={() => void keep.must().catch(() => undefined)}>
              Keep what stands on it
            </Button>
            <Button onClick={forget}>Leave it as it was</Button>
          </div>
        )
      )}
    </section>
  );
}

/** Lines copied from the issuer's statement mark their payments; what they name nothing by is told. */
function ByLines({ invoice, onMatched }: { invoice: number; onMatched: (found: number[]) => void }) {
  const [asking, setAsking] = useState(false);
  const [text, setText, forget] = useKept<string>(`statement lines ${invoice}`, "");
  const [read, setRead] = useState<Schemas["CardTextRead"]>();
  const look = useDeed(
    () =>
      call(
        api.POST("/api/invoices/{id}/statement/lines", { params: { path: { id: invoice } }, body: { text } }),
      ),
    {
      done: (found) => {
        setRead(found);
        onMatched(found.matched);
        if (found.others.length === 0) {
          forget();
          setAsking(false);
        }
      },
      said: (found) =>
        `${found.matched.length} ${found.matched.length === 1 ? "line has its payment" : "lines have their payments"}. Keep what stands on it.`,
    },
  );
  return (
    <>
      <Button look="bare" className="mt-2" onClick={() => setAsking(true)}>
        Match its lines…
      </Button>
      <Dialog open={asking} onClose={() => setAsking(false)} title="Match the lines of the statement" wide>
        <Field label="Its lines, as they are copied from it: each with its amount, and its number where it has one">
          <textarea
            rows={10}
            className="font-mono"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </Field>
        {read && read.others.length > 0 && (
          <ul className="callout mt-3 flex flex-col gap-1" aria-label="To be looked at">
            {read.others.map((one, i) => (
              <li key={i}>
                <span className="font-mono text-note">{one.line}</span>:{" "}
                <span className="text-brass">{one.why}</span>
              </li>
            ))}
          </ul>
        )}
        <Refusal deed={look} />
        <div className="mt-4 flex justify-end gap-3">
          <Button onClick={() => setAsking(false)}>Close</Button>
          <Button
            look="deed"
            disabled={look.busy || text.trim() === ""}
            onClick={() => void look.must().catch(() => undefined)}
          >
            Match them
          </Button>
        </div>
      </Dialog>
    </>
  );
}
