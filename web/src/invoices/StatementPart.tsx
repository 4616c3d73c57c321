import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { shortDate } from "../parts/dates";
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
