import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import type { Change, Question } from "./criteria";
import type { DueView } from "./useDueList";
import { DayField } from "../parts/DayField";
import { Field } from "../parts/Field";

/** The cash there is, line by line, and the four ways to spend a limit side by side. */
export function CashPanel({
  question,
  view,
  change,
}: {
  question: Question;
  view: DueView | undefined;
  change: Change;
}) {
  const session = useSession();
  const [doing, setDoing] = useState<"floor" | "movement">();
  const [closing, setClosing] = useState<Schemas["MovementView"]>();
  const queries = useQueryClient();
  const cash = useQuery({
    queryKey: ["cash", question.account, question.checkDate, view?.count],
    queryFn: () => call(api.GET("/api/due/cash", { params: { query: question } })),
  });
  return (
    <div className="flex flex-col gap-4">
      {cash.error && <p className="text-rust">{cash.error.message}</p>}
      {cash.data && (
        <section>
          <table className="w-full">
            <caption className="mb-1 text-left font-semibold">Cash available, {cash.data.currency}</caption>
            <tbody>
              {cash.data.lines.map((line) => (
                <tr key={line.words}>
                  <th scope="row" className="py-0.5 text-left font-normal">
                    {line.words}
                    {line.detail && <span className="text-faint block text-note">{line.detail}</span>}
                  </th>
                  <td className="text-right align-top whitespace-nowrap">{line.amount}</td>
                </tr>
              ))}
              <tr className="border-ink border-t">
                <th scope="row" className="py-1 text-left">
                  Available
                </th>
                <td className="text-right font-bold">{cash.data.available}</td>
              </tr>
            </tbody>
          </table>
          {cash.data.movements.length > 0 && (
            <ul className="mb-2 text-note" aria-label="Movements the ledger does not have yet">
              {cash.data.movements.map((one) => (
                <li key={one.id} className="border-hair flex items-baseline gap-2 border-t py-0.5">
                  <span className="text-faint">{shortDate(one.date)}</span>
                  <span className="flex-1">{one.text}</span>
                  <span>{one.amount}</span>
                  {session.roles.includes("CLERK") && (
                    <button type="button" className="go min-h-6" onClick={() => setClosing(one)}>
                      The ledger has it…
                    </button>
                  )}
                </li>
              ))}
            </ul>
          )}
          <p className="flex gap-3 text-note">
            {question.limit !== "available" && (
              <button
                type="button"
                className="go min-h-6"
                onClick={() => change({ limit: "available", by: undefined })}
              >
                Pay up to this
              </button>
            )}
            {session.roles.includes("CLERK") && (
              <button type="button" className="go min-h-6" onClick={() => setDoing("movement")}>
                Bring in a movement…
              </button>
            )}
            {session.roles.includes("CONTROLLER") && (
              <button type="button" className="go min-h-6" onClick={() => setDoing("floor")}>
                Set the floor…
              </button>
            )}
          </p>
        </section>
      )}
      {view && view.ways.length > 0 ? (
        <section>
          <table className="w-full text-note">
            <caption className="mb-1 text-left text-body font-semibold">
              Four ways to spend {view.limit}
            </caption>
            <thead className="text-faint">
              <tr>
                <th className="text-left font-semibold">Way</th>
                <th className="pl-2 text-right font-semibold">Claims</th>
                <th className="pl-2 text-right font-semibold">Spends</th>
                <th className="pl-2 text-right font-semibold">Saves</th>
                <th className="pl-2 text-right font-semibold">Leaves late</th>
              </tr>
            </thead>
            <tbody>
              {view.ways.map((way) => (
                <tr
                  key={way.way}
                  className={`border-hair border-t align-top ${way.chosen ? "bg-cursor" : ""}`}
                >
                  <th scope="row" className="py-1 text-left font-normal">
                    <button
                      type="button"
                      aria-pressed={way.chosen}
                      className="go min-h-6 text-left"
                      onClick={() => change({ way: way.way })}
                    >
                      {way.words}
                    </button>
                    {way.chosen && <span className="block font-bold">chosen</span>}
                    {way.error && <span className="text-brass block">within {way.error} of the most</span>}
                  </th>
                  <td className="py-1 pl-2 text-right">{way.claims}</td>
                  <td className="py-1 pl-2 text-right">{way.spends}</td>
                  <td className="text-greentext py-1 pl-2 text-right">{way.saves}</td>
                  <td className="py-1 pl-2 text-right">
                    {way.late === 0 ? "none" : way.lateCash}
                    {way.late > 0 && <span className="text-faint block">{way.late} claims</span>}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ) : (
        <p className="text-faint">
          With a limit in the sentence, the four ways to spend it stand here side by side, and the list shows
          the cash line.
        </p>
      )}
      <DeedDialog
        open={closing !== undefined}
        onClose={() => setClosing(undefined)}
        title={`${closing?.text}, ${closing?.amount}: the ledger has it by now`}
        deed="Close the movement"
        reason="Where the ledger has it"
        run={async (why) => {
          await call(
            api.POST("/api/bank-accounts/{id}/movements/{movement}/close", {
              params: { path: { id: question.account ?? 0, movement: closing!.id } },
              body: { why },
            }),
          );
          await queries.invalidateQueries();
        }}
      >
        <p>It counts no more beside the ledger cash, which has it already.</p>
      </DeedDialog>
      <CashDeeds
        account={question.account ?? 0}
        doing={doing}
        onClose={() => setDoing(undefined)}
        today={session.today}
      />
    </div>
  );
}

function CashDeeds({
  account,
  doing,
  onClose,
  today,
}: {
  account: number;
  doing: "floor" | "movement" | undefined;
  onClose: () => void;
  today: string;
}) {
  const queries = useQueryClient();
  const [amount, setAmount] = useState("");
  const [text, setText] = useState("");
  const [date, setDate] = useState(today);
  const floor = doing === "floor";
  return (
    <DeedDialog
      open={doing !== undefined}
      onClose={() => {
        setAmount("");
        setText("");
        onClose();
      }}
      title={
        floor ? "The cash the company keeps on this account" : "A cash movement the ledger does not know yet"
      }
      deed={floor ? "Keep this floor" : "Bring it in"}
      run={async () => {
        const path = { params: { path: { id: account } } };
        if (floor)
          await call(api.POST("/api/bank-accounts/{id}/floor", { ...path, body: { floor: amount } }));
        else
          await call(
            api.POST("/api/bank-accounts/{id}/movements", { ...path, body: { date, text, amount } }),
          );
        await queries.invalidateQueries();
      }}
    >
      <div className="flex flex-col gap-3">
        {!floor && (
          <>
            <DayField label="Day at the bank" value={date} onDay={(day) => setDate(day ?? "")} />
            <Field label="What it is">
              <input value={text} maxLength={120} onChange={(event) => setText(event.target.value)} />
            </Field>
          </>
        )}
        <label className="flex flex-col gap-1">
          <span className="text-faint">{floor ? "Floor" : "Amount; a minus for what left the account"}</span>
          <input
            inputMode="decimal"
            className="text-right"
            value={amount}
            onChange={(event) => setAmount(event.target.value)}
          />
        </label>
      </div>
    </DeedDialog>
  );
}
