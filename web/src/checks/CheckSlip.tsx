import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useRest } from "../parts/useRest";
import { TrailFold } from "../audit/TrailOf";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { clock, longDate, shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { DayField } from "../parts/DayField";

/** One number with its history, what it paid, what the bank heard, and the void it could get. */
export function CheckSlip({ id }: { id: number }) {
  const session = useSession();
  const rested = useRest(id);
  const [date, setDate] = useState(session.today);
  const history = useQuery({
    queryKey: ["check", rested],
    queryFn: () => call(api.GET("/api/checks/{id}", { params: { path: { id: rested } } })),
    placeholderData: keepPreviousData,
  });
  if (history.error && !history.data) return <p className="text-rust">{history.error.message}</p>;
  if (!history.data) return null;
  const { number, steps, invoices, bank } = history.data;
  return (
    <div className="flex flex-col gap-4">
      <h2 className="text-base font-bold">
        <span className="font-mono">{number.number}</span>, {number.stateWords}
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
              <Link className="text-harbour underline" to={`/batches/${number.batch}`}>
                {number.batchName}
              </Link>
            </>
          )}
          .
        </p>
      )}
      {invoices.length > 0 && (
        <table className="w-full text-[13px]">
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
                <td className="py-1 font-mono">{line.reference}</td>
                <td className="text-right">{line.gross}</td>
                <td className="text-right">{line.discount}</td>
                <td className="text-right">{line.cash}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {invoices.length > 8 && <p className="text-faint">and {invoices.length - 8} more invoices</p>}
      {number.state === "OUTSTANDING" && session.roles.includes("CLERK") && (
        <VoidPart number={number} date={date} setDate={setDate} />
      )}
      <section>
        <h3 className="text-faint mb-1 text-[13px] font-semibold">The bank</h3>
        {bank.length === 0 ? (
          <p>has nothing to hear of this number.</p>
        ) : (
          bank.map((line) => <p key={line}>{line}</p>)
        )}
      </section>
      <section>
        <h3 className="text-faint mb-1 text-[13px] font-semibold">History</h3>
        <ol>
          {steps.map((step, i) => (
            <li key={i} className="border-hair flex justify-between gap-3 border-t py-1 text-[13px]">
              <span>
                <b>{step.state}</b> {shortDate(step.date)}
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

function VoidPart({
  number,
  date,
  setDate,
}: {
  number: Schemas["NumberView"];
  date: string;
  setDate: (date: string) => void;
}) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  const preview = useQuery({
    queryKey: ["void-preview", number.id, date],
    queryFn: () =>
      call(
        api.GET("/api/checks/{id}/void-preview", { params: { path: { id: number.id }, query: { date } } }),
      ),
    placeholderData: keepPreviousData,
  });
  return (
    <section className="border-hair border-t pt-3">
      <h3 className="mb-2 font-semibold">If {number.number} is voided</h3>
      <div className="mb-2">
        <DayField label="On" value={date} onDay={(day) => day && setDate(day)} />
      </div>
      {preview.error ? (
        <p className="text-rust">{preview.error.message}</p>
      ) : (
        preview.data && <Entry preview={preview.data} />
      )}
      <p className="mt-2">
        {number.payee && "Its invoices come back open; "}the number stays. {preview.data?.bank}
      </p>
      <Button look="grave" className="mt-2" disabled={Boolean(preview.error)} onClick={() => setAsking(true)}>
        Void check…
      </Button>
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`Void check ${number.number} to ${number.payee}, ${number.amount?.text ?? ""}`}
        deed={`Void check ${number.number}`}
        grave
        reason="Why it is voided"
        run={async (reason) => {
          await call(
            api.POST("/api/checks/{id}/void", {
              params: { path: { id: number.id } },
              body: { date, reason },
            }),
          );
          await queries.invalidateQueries();
          toast(`Check ${number.number} is voided; its invoices are open again.`);
        }}
      >
        {preview.data && <Entry preview={preview.data} />}
        <p className="mt-2">{preview.data?.bank}</p>
      </DeedDialog>
    </section>
  );
}

/** An entry in debit and credit columns. */
function Entry({ preview }: { preview: Schemas["VoidView"] }) {
  return (
    <table className="border-hair bg-sheet w-full border">
      <thead className="text-faint text-[13px]">
        <tr>
          <th className="px-2 py-1 text-left font-semibold">{preview.period}</th>
          <th className="px-2 text-right font-semibold">Debit</th>
          <th className="px-2 text-right font-semibold">Credit</th>
        </tr>
      </thead>
      <tbody>
        {preview.lines.map((line, i) => (
          <tr key={i} className="border-hair border-t">
            <td className="px-2 py-1">{line.account}</td>
            <td className="px-2 text-right">{line.debit}</td>
            <td className="px-2 text-right">{line.credit}</td>
          </tr>
        ))}
        <tr className="border-hair text-faint border-t text-[13px]">
          <td colSpan={3} className="px-2 py-1">
            Locked months do not move.
          </td>
        </tr>
      </tbody>
    </table>
  );
}
