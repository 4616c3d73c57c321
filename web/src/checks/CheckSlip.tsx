import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, call } from "../api/client";
import { useRest } from "../parts/useRest";
import { TrailFold } from "../audit/TrailOf";
import { useSession } from "../frame/session";
import { clock, longDate, shortDate } from "../parts/dates";
import { AdvicePart } from "../mail/AdvicePart";
import { Explained } from "./Explained";
import { Chain, ReissuePart } from "../voiding/ReissuePart";
import { StopPart } from "../voiding/StopPart";
import { UndoPart } from "../voiding/UndoPart";

/** One number with its history, what it paid, what the bank heard, and the void it could get. */
export function CheckSlip({ id }: { id: number }) {
  const session = useSession();
  const rested = useRest(id);
  const history = useQuery({
    queryKey: ["check", rested],
    queryFn: () => call(api.GET("/api/checks/{id}", { params: { path: { id: rested } } })),
    placeholderData: keepPreviousData,
  });
  if (history.error && !history.data) return <p className="text-rust">{history.error.message}</p>;
  if (!history.data) return null;
  const { number, steps, invoices, bank } = history.data;
  const paid = number.payment && (number.state === "OUTSTANDING" || number.state === "STOPPED");
  return (
    <div className="flex flex-col gap-4">
      <h2 className="text-base font-bold">
        <span className="font-mono">{number.name}</span>, {number.stateWords}
        {number.byHand && ", written by hand"}
      </h2>
      {number.payee && (
        <p>
          {number.payee}
          {number.amount && (
            <>
              , <b>{number.amount.text}</b> {number.amount.currency}
            </>
          )}
          {number.checkDate && `, ${longDate(number.checkDate)}`}
          {number.batch && (
            <>
              , from{" "}
              <Link className="go" to={`/batches/${number.batch}`}>
                {number.batchName}
              </Link>
            </>
          )}
          .
        </p>
      )}
      {invoices.length > 0 && (
        <table className="w-full text-note">
          <thead className="text-faint">
            <tr>
              <th className="text-left font-semibold">Pays</th>
              <th className="text-right font-semibold">Settles</th>
              <th className="text-right font-semibold">Discount</th>
              <th className="text-right font-semibold">Paid</th>
            </tr>
          </thead>
          <tbody>
            {invoices.slice(0, 8).map((line) => (
              <tr key={line.line} className="border-hair border-t">
                <td className="py-1 font-mono">
                  {line.invoice ? (
                    <Link className="go" to={`/invoices/${line.invoice}`}>
                      {line.reference}
                    </Link>
                  ) : (
                    line.reference
                  )}
                </td>
                <td className="text-right">{line.gross}</td>
                <td className="text-right">{line.discount}</td>
                <td className="text-right">{line.cash}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {invoices.length > 8 && <p className="text-faint">and {invoices.length - 8} more invoices</p>}
      {paid && session.roles.includes("CLERK") && (
        <>
          <StopPart
            payment={number.payment!}
            name={number.name}
            stop={history.data.stop}
            undoing={history.data.undoing}
          >
            <ReissuePart payment={number.payment!} name={number.name} />
          </StopPart>
          {!history.data.undoing && (
            <UndoPart key={number.payment} payment={number.payment!} name={number.name} />
          )}
        </>
      )}
      {number.state === "UNACCOUNTED" && <Explained id={id} number={number} />}
      {number.payment && invoices.length > 0 && !number.byHand && (
        <AdvicePart key={number.payment} payment={number.payment} name={`check ${number.number}`} />
      )}
      {number.payment && number.state !== "TAKEN" && !number.byHand && (
        <p>
          <a
            className="go"
            href={`/api/stubs/pdf?payments=${number.payment}`}
            target="_blank"
            rel="noreferrer"
          >
            Stub again, as it was printed
          </a>
          , a marked copy.
        </p>
      )}
      <Chain chain={history.data.chain} />
      <section>
        <h3 className="text-faint mb-1 text-note font-semibold">The bank</h3>
        {bank.length === 0 ? (
          <p>has nothing to hear of this number.</p>
        ) : (
          bank.map((line) => <p key={line}>{line}</p>)
        )}
      </section>
      <section>
        <h3 className="text-faint mb-1 text-note font-semibold">History</h3>
        <ol>
          {steps.map((step, i) => (
            <li key={i} className="border-hair flex justify-between gap-3 border-t py-1 text-note">
              <span>
                <b>{step.state}</b> {step.date && shortDate(step.date)}
                {step.why && `: ${step.why}`}
              </span>
              <span className="text-faint text-right" title={clock(step.at)}>
                {step.who}
              </span>
            </li>
          ))}
        </ol>
      </section>
      <TrailFold key={number.id} subject={`check ${number.number}`} />
    </div>
  );
}
