import { useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useCallback, useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { Download } from "../parts/Download";
import { Grid } from "../parts/Grid";
import { readRanges, writeRanges } from "../parts/ranges";
import { DuePanels, type Panel } from "./DuePanels";
import { DueSentence } from "./DueSentence";
import { HorizonStrip } from "./HorizonStrip";
import { MakeBatch } from "./MakeBatch";
import { WhatIsMissing } from "../setup/WhatIsMissing";
import { useCriteria, type Account } from "./criteria";
import { useDueList, type DueView, type Row } from "./useDueList";
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
  const [making, setMaking] = useState(false);
  const [asked, setAsked] = useState("");
  const cursor = values.at;
  const panel = (values.panel ?? "payment") as Panel;
  const clerk = session.roles.includes("CLERK");

  const mark = useCallback(
    (entries: number[], take: boolean, how: (entry: number) => Row | undefined) => {
      const out = readRanges(values.out);
      const into = readRanges(values.in);
      for (const entry of entries) {
        if (take) {
          const row = how(entry);
          // what the criteria take anyway needs no mark
          if (!out.delete(entry) && row && !row.taken && row.movable) into.add(entry);
        } else if (!into.delete(entry)) {
          out.add(entry);
        }
      }
      change({ out: writeRanges(out) || undefined, in: writeRanges(into) || undefined });
    },
    [values.out, values.in, change],
  );
  const moveClaim = useCallback(
    (view: DueView, group: Schemas["GroupView"], take: boolean) => {
      const out = readRanges(values.out);
      const into = readRanges(values.in);
      for (const entry of view.order.slice(group.first, group.first + group.count)) {
        // what one key took in, the other gives back to where it was
        const back = (take ? out : into).delete(entry);
        if (take || !back) (take ? into : out).add(entry);
      }
      change({ out: writeRanges(out) || undefined, in: writeRanges(into) || undefined });
    },
    [values.out, values.in, change],
  );
  const heading = useCallback((group: Schemas["GroupView"]) => <Heading group={group} />, []);
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
  const marks = readRanges(values.out).size + readRanges(values.in).size;
  return (
    <Station
      title="Due"
      sentence={
        <DueSentence accounts={accounts} question={question} view={due.data} how={how} change={change} />
      }
      answer={
        due.data && (
          <>
            <Figure value={due.data.count}>
              taken, <b className="text-ink">{due.data.claims}</b>{" "}
              {due.data.claims === 1 ? "claim" : "claims"}
            </Figure>
            <Figure value={due.data.toPay}>to pay</Figure>
            {!due.data.checkDateIsBankingDay && (
              <span className="text-brass">{longDate(due.data.checkDate)} is no banking day</span>
            )}
            <Figure value={due.data.saved}>saved</Figure>
            {question.credits && <Figure value={due.data.credited}>credits used</Figure>}
            {due.data.left !== undefined && due.data.left !== null && (
              <Figure value={due.data.left} look={due.data.overLimit ? "text-rust" : ""}>
                {due.data.overLimit ? "over the limit" : "left of the limit"}
              </Figure>
            )}
            {(due.data.leftOutCount > 0 || due.data.creditsOut.length > 0) && (
              <button
                type="button"
                className="text-brass min-h-6 truncate underline underline-offset-2"
                onClick={() => change({ panel: "left-out" })}
              >
                <b>{due.data.leftOutCount}</b> left out
              </button>
            )}
            {marks > 0 && (
              <button
                type="button"
                className="go min-h-6"
                onClick={() => change({ out: undefined, in: undefined })}
              >
                forget {marks} {marks === 1 ? "mark" : "marks"} by hand
              </button>
            )}
            <form
              className="ml-auto flex items-center gap-2"
              onSubmit={(event) => {
                event.preventDefault();
                if (asked.trim()) change({ panel: "where", where: asked.trim() });
              }}
            >
              <input
                aria-label="Where is this invoice?"
                placeholder="Where is … ?"
                className="min-h-6 w-36 py-0"
                value={asked}
                onChange={(event) => setAsked(event.target.value)}
              />
            </form>
            <button
              type="button"
              aria-expanded={values.horizon === "yes"}
              className="go min-h-6"
              onClick={() => change({ horizon: values.horizon === "yes" ? undefined : "yes" })}
            >
              Horizon
            </button>
          </>
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
                empty={
                  how.showing !== "ALL" && due.data?.count ? (
                    "Nothing of that is in the list. List all of it in the sentence above."
                  ) : values.days ? (
                    "Nothing listed falls into these days. Pick others on the horizon, or show all days."
                  ) : (
                    <WhatIsMissing>
                      Nothing open is due by this day. Choose a later day in the sentence above.
                    </WhatIsMissing>
                  )
                }
              />
            )}
          </Loaded>
        </>
      }
      bar={
        <>
          <span aria-live="polite">
            <b>{due.data?.count ?? 0}</b> taken, <b>{due.data?.toPay ?? "–"}</b>
          </span>
          <span className="text-faint">
            {total
              ? `${total.count} selected, open ${total.open.map((m) => `${m.text} ${m.currency}`).join(" and ")}, to pay ${total.toPay}`
              : due.data &&
                `${due.data.listed} listed, open ${due.data.open.map((m) => `${m.text} ${m.currency}`).join(" and ")}`}
          </span>
          <span className="ml-auto">
            <Download path="/api/due/csv" params={{ ...question, ...how }} />
          </span>
          <Button
            look="deed"
            disabled={!due.data || due.isPlaceholderData || due.data.count === 0 || !clerk}
            onClick={() => setMaking(true)}
          >
            Make the batch of {due.data?.count ?? 0}
          </Button>
          {due.data && (
            <MakeBatch
              key={String(making)}
              open={making}
              onClose={() => setMaking(false)}
              question={question}
              view={due.data}
              criteria={values.kept ? Number(values.kept) : undefined}
            />
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
          onTakeIn={(entry) => {
            const out = readRanges(values.out);
            const into = readRanges(values.in);
            if (!out.delete(entry)) into.add(entry);
            change({
              out: writeRanges(out) || undefined,
              in: writeRanges(into) || undefined,
              at: String(entry),
            });
          }}
        />
      }
    />
  );
}
