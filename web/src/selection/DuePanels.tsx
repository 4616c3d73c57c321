import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { api, call } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { useDeed } from "../parts/useDeed";
import { CashPanel } from "./CashPanel";
import { DueSlip } from "./DueSlip";
import { HorizonTable } from "./HorizonTable";
import type { Change, Question } from "./criteria";
import type { DueView } from "./useDueList";

export type Panel = "payment" | "left-out" | "cash" | "horizon" | "where";

const TITLES: Record<Panel, string> = {
  payment: "Payment",
  "left-out": "Left out",
  cash: "Cash",
  horizon: "Horizon",
  where: "Where",
};

/** What stands beside the list: the payment under the cursor, or one answer about the whole. */
export function DuePanels({
  panel,
  question,
  view,
  cursor,
  where,
  clerk,
  change,
  onTakeIn,
}: {
  panel: Panel;
  question: Question;
  view: DueView | undefined;
  cursor: number | undefined;
  where: string | undefined;
  clerk: boolean;
  change: Change;
  onTakeIn: (entry: number) => void;
}) {
  const contents: Record<Panel, ReactNode> = {
    payment: (
      <DueSlip question={question} invoice={cursor && view?.order.includes(cursor) ? cursor : undefined} />
    ),
    "left-out": <LeftOut view={view} clerk={clerk} change={change} />,
    cash: <CashPanel question={question} view={view} change={change} />,
    horizon: <HorizonTable question={question} />,
    where: <Where question={question} text={where} onTakeIn={onTakeIn} />,
  };
  return (
    <Tabs.Root
      value={panel}
      onValueChange={(next) => change({ panel: next === "payment" ? undefined : next })}
    >
      <Tabs.List aria-label="Beside the list" className="border-hair mb-3 flex gap-3 border-b">
        {(Object.keys(TITLES) as Panel[]).map((key) => (
          <Tabs.Trigger
            key={key}
            value={key}
            className="text-faint data-[state=active]:text-ink data-[state=active]:border-harbour -mb-px min-h-8 border-b-2 border-transparent px-0.5 text-note data-[state=active]:font-bold"
          >
            {TITLES[key]}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value={panel}>{contents[panel]}</Tabs.Content>
    </Tabs.Root>
  );
}

/** Why invoices stay out, reason by reason, and the offsets that would settle what credits cover. */
function LeftOut({ view, clerk, change }: { view: DueView | undefined; clerk: boolean; change: Change }) {
  const queries = useQueryClient();
  const offset = useDeed(
    (one: DueView["offsets"][number]) =>
      call(
        api.POST("/api/offsets", {
          body: { vendor: one.vendor, invoices: one.invoices, credits: one.credits },
        }),
      ),
    {
      done: () => queries.invalidateQueries(),
      said: (made) => `Offset ${made.reference}: ${made.amount.text} settled without a payment.`,
      undo: (made) => async () => {
        await call(api.POST("/api/offsets/{id}/undo", { params: { path: { id: made.id } } }));
        await queries.invalidateQueries();
      },
    },
  );
  if (!view) return null;
  if (view.leftOut.length === 0 && view.creditsOut.length === 0)
    return <p className="text-faint">Nothing is left out: everything the sentence asks for is taken.</p>;
  return (
    <div className="flex flex-col gap-3">
      <ul>
        {view.leftOut.map((reason) => (
          <li key={reason.reason} className="border-hair border-b py-1.5">
            <button
              type="button"
              disabled={reason.first === 0}
              className="flex min-h-6 w-full items-baseline gap-2 text-left"
              onClick={() => change({ at: String(reason.first) })}
            >
              <b className="w-8 text-right">{reason.count}</b>
              <span className={`flex-1 font-semibold ${reason.first ? "text-harbour underline" : ""}`}>
                {reason.words}
              </span>
              <span className="text-right">
                {reason.open
                  .map((m) => (m.currency === view.currency ? m.text : `${m.text} ${m.currency}`))
                  .join(" + ")}
              </span>
            </button>
            <p className="text-faint pl-10 text-note">{reason.wayOut}</p>
          </li>
        ))}
      </ul>
      {view.creditsOut.length > 0 && (
        <section>
          <h2 className="mb-1 font-semibold">Credits not used</h2>
          <ul>
            {view.creditsOut.map((one) => (
              <li key={one.credit} className="border-hair flex gap-2 border-b py-1">
                <Link className="go font-mono text-note" to={`/vendors/${one.vendor}?show=OPEN`}>
                  {one.reference}
                </Link>
                <span className="text-faint flex-1 text-note">{one.why}</span>
                <span>
                  {one.open.currency === view.currency
                    ? one.open.text
                    : `${one.open.text} ${one.open.currency}`}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {view.offsets.length > 0 && (
        <section>
          <h2 className="mb-1 font-semibold">Credits cover all of it: settle without a payment</h2>
          <ul>
            {view.offsets.map((one) => (
              <li key={one.vendor + "-" + one.invoices[0]} className="flex items-center gap-2 py-1">
                <Link className="go flex-1 truncate" to={`/vendors/${one.vendor}?show=OPEN`}>
                  {one.vendorName}
                </Link>
                <span>{one.amount}</span>
                <Button disabled={!clerk} onClick={() => void offset.run(one)}>
                  Offset {one.invoices.length === 1 ? "1 invoice" : `${one.invoices.length} invoices`}
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

/** “Where is 7731?” in one line for each invoice it could mean. */
function Where({
  question,
  text,
  onTakeIn,
}: {
  question: Question;
  text: string | undefined;
  onTakeIn: (entry: number) => void;
}) {
  const session = useSession();
  const found = useQuery({
    queryKey: ["where", question, text, session.today],
    enabled: Boolean(text),
    queryFn: () => call(api.GET("/api/due/where", { params: { query: { ...question, text: text! } } })),
  });
  if (!text)
    return (
      <p className="text-faint">
        Type an entry number or a vendor’s reference into “Where is … ?” above the list: every invoice is
        answered, wherever it is.
      </p>
    );
  if (found.error && !found.data) return <p className="text-rust">{found.error.message}</p>;
  if (!found.data) return null;
  return (
    <div aria-live="polite">
      <h2 className="mb-2 font-semibold">Where is {text}?</h2>
      {found.data.length === 0 && (
        <p>
          Unknown: no invoice or credit has this entry number or reference. It may not have arrived; look for
          the paper, or search the vendor.
        </p>
      )}
      <ul>
        {found.data.map((one) => (
          <li key={one.invoice} className="border-hair border-b py-2">
            <p>
              <Link className="go" to={`/vendors/${one.vendor}?show=OPEN`}>
                {one.vendorName}
              </Link>{" "}
              <span className="font-mono text-note">{one.reference}</span>, entry {one.invoice}
            </p>
            <p>
              <b>{one.words}</b>
              {one.sentence}
            </p>
            {one.wayOut && <p className="text-faint text-note">{one.wayOut}</p>}
            {one.canTake && session.roles.includes("CLERK") && (
              <Button className="mt-1" autoFocus onClick={() => onTakeIn(one.invoice)}>
                Take {one.reference} in
              </Button>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
