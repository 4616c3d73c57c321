import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import type { Change, Question } from "./criteria";
import type { DueView } from "./useDueList";
import { CashDeeds } from "./CashDeeds";
import { WaysToSpend } from "./WaysToSpend";

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
          <CashLines cash={cash.data} />
          {cash.data.movements.length > 0 && (
            <Movements
              of={cash.data.movements}
              onClosed={session.roles.includes("CLERK") ? setClosing : undefined}
            />
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
        <WaysToSpend view={view} change={change} />
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

/** From the ledger's cash to what can be spent, line by line. */
function CashLines({ cash }: { cash: Schemas["CashView"] }) {
  return (
    <table className="w-full">
      <caption className="mb-1 text-left font-semibold">Cash available, {cash.currency}</caption>
      <tbody>
        {cash.lines.map((line) => (
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
          <td className="text-right font-bold">{cash.available}</td>
        </tr>
      </tbody>
    </table>
  );
}

/** What the bank has and the ledger does not yet; `onClosed` says of one that it has it by now. */
function Movements({
  of,
  onClosed,
}: {
  of: Schemas["MovementView"][];
  onClosed: ((one: Schemas["MovementView"]) => void) | undefined;
}) {
  return (
    <ul className="mb-2 text-note" aria-label="Movements the ledger does not have yet">
      {of.map((one) => (
        <li key={one.id} className="border-hair flex items-baseline gap-2 border-t py-0.5">
          <span className="text-faint">{shortDate(one.date)}</span>
          <span className="flex-1">{one.text}</span>
          <span>{one.amount}</span>
          {onClosed && (
            <button type="button" className="go min-h-6" onClick={() => onClosed(one)}>
              The ledger has it…
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
