import { useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useCallback, useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Grid } from "../parts/Grid";
import { readRanges } from "../parts/ranges";
import { DueAnswer } from "./DueAnswer";
import { DueBar } from "./DueBar";
import { DuePanels, type Panel } from "./DuePanels";
import { DueSentence } from "./DueSentence";
import { HorizonStrip } from "./HorizonStrip";
import { MakeBatch } from "./MakeBatch";
import { MakeRun } from "./MakeRun";
import { WhatIsMissing } from "../setup/WhatIsMissing";
import { useByHand } from "./useByHand";
import { useCriteria, type Account, type HowListed } from "./criteria";
import { useDueList, type DueView } from "./useDueList";
import { useSelectedTotal, useColumns, Heading, CashLine, selectedCsv } from "./dueRows";

/** See what is due, why the rest is left out, and make a batch of what is taken. */
export function DueStation() {
  const accounts = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
    staleTime: 60_000,
  });
  return (
    <Loaded query={accounts}>
      {(data) =>
        data.length === 0 ? (
          <WhatIsMissing>No bank account is there to pay from yet.</WhatIsMissing>
        ) : (
          <Due accounts={data} />
        )
      }
    </Loaded>
  );
}

export function Due({ accounts }: { accounts: Account[] }) {
  const session = useSession();
  const { question, how, values, change } = useCriteria(accounts);
  const [selected, setSelected] = useState<Set<string>>(new Set());
  const [making, setMaking] = useState<"one" | "all">();
  const cursor = values.at;
  const panel = (values.panel ?? "payment") as Panel;
  const clerk = session.roles.includes("CLERK");

  const { mark, moveClaim, takeIn, count: marks } = useByHand(values, change);
  const heading = useCallback(
    (group: Schemas["GroupView"], view: DueView) => <Heading group={group} currency={view.currency} />,
    [],
  );
  const line = useCallback((view: DueView) => <CashLine view={view} />, []);
  const { due, items, onRange, row, all } = useDueList(question, how, heading, line);
  const total = useSelectedTotal(question, how, selected, due.data?.listed ?? 0);
  const rowOf = (entry: number) => row(String(entry));
  // until the answer to a mark is here, what was marked is what counts: Space twice is back where it was
  const taken = (key: string) => {
    const entry = Number(key);
    if (due.isPlaceholderData && readRanges(values.out).has(entry)) return false;
    if (due.isPlaceholderData && readRanges(values.in).has(entry)) return true;
    return row(key)?.taken;
  };
  const toggle = (keys: string[], at: string) => mark(keys.map(Number), !taken(at), rowOf);
  const onKey = (key: string, at: string) => {
    const view = due.data;
    if (!view || (key !== "+" && key !== "-")) return;
    const place = view.order.indexOf(Number(at));
    const group = view.groups.find((g) => g.claim && g.first <= place && place < g.first + g.count);
    if (group) moveClaim(view, group, key === "+");
    else mark([Number(at)], key === "+", rowOf);
  };
  const columns = useColumns(due.data?.currency, (one) => toggle([String(one.invoice)], String(one.invoice)));
  return (
    <Station
      title="Due"
      sentence={
        <DueSentence accounts={accounts} question={question} view={due.data} how={how} change={change} />
      }
      answer={
        due.data && (
          <DueAnswer
            view={due.data}
            question={question}
            marks={marks}
            horizon={values.horizon === "yes"}
            change={change}
          />
        )
      }
      list={
        <>
          {values.horizon === "yes" && (
            <HorizonStrip question={question} view={due.data} days={values.days} change={change} />
          )}
          <Loaded query={due}>
            {() => (
              <Grid
                list="due"
                label="Invoices due"
                items={items}
                columns={columns}
                cursor={cursor}
                onCursor={(key) => change({ at: key })}
                selected={selected}
                onSelect={setSelected}
                onSpace={toggle}
                onKey={onKey}
                onRange={onRange}
                all={all}
                csv={(keys) => selectedCsv(question, how, keys)}
                dim={(one) => !one.taken}
                empty={<Nothing of={due.data} how={how} days={values.days} />}
              />
            )}
          </Loaded>
        </>
      }
      bar={
        <>
          <DueBar
            view={due.data}
            question={question}
            how={how}
            total={total}
            may={clerk && !due.isPlaceholderData}
            onMake={() => setMaking("one")}
            onRun={() => setMaking("all")}
          />
          {due.data && (
            <>
              <MakeBatch
                key={`one ${making}`}
                open={making === "one"}
                onClose={() => setMaking(undefined)}
                question={question}
                view={due.data}
                criteria={values.kept ? Number(values.kept) : undefined}
              />
              <MakeRun
                key={`all ${making}`}
                open={making === "all"}
                onClose={() => setMaking(undefined)}
                question={question}
                view={due.data}
                criteria={values.kept ? Number(values.kept) : undefined}
              />
            </>
          )}
        </>
      }
      slip={
        <DuePanels
          panel={panel}
          question={question}
          view={due.data}
          cursor={cursor ? Number(cursor) : undefined}
          where={values.where}
          clerk={clerk}
          change={change}
          onTakeIn={takeIn}
        />
      }
    />
  );
}

/** Why the list is empty, and what to do about it. */
function Nothing({ of, how, days }: { of: DueView | undefined; how: HowListed; days: string | undefined }) {
  return how.showing !== "ALL" && of?.count ? (
    "Nothing of that is in the list. List all of it in the sentence above."
  ) : days ? (
    "Nothing listed falls into these days. Pick others on the horizon, or show all days."
  ) : (
    <WhatIsMissing>Nothing open is due by this day. Choose a later day in the sentence above.</WhatIsMissing>
  );
}
