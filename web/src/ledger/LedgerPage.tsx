import { useInfiniteQuery, useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Download } from "../parts/Download";
import { Grid, type Column, type Item } from "../parts/Grid";
import { ChoiceWord } from "../parts/Word";

type Line = Schemas["LedgerLineView"];

/** Entries by period, and the trial balance. */
export function LedgerPage() {
  const periods = useQuery({ queryKey: ["periods"], queryFn: () => call(api.GET("/api/periods")) });
  return <Loaded query={periods}>{(data) => <Ledger periods={data} />}</Loaded>;
}

function Ledger({ periods }: { periods: Schemas["PeriodView"][] }) {
  const session = useSession();
  const [values, change] = useAddress();
  const month =
    periods.find((p) => p.month === values.month) ??
    periods.find((p) => p.month === session.today.slice(0, 7)) ??
    periods[0];
  if (!month) return <p className="text-faint p-8">No period is set up yet.</p>;
  const view = values.view === "balance" ? "balance" : "entries";
  return (
    <Station
      title="Ledger"
      sentence={
        <>
          The{" "}
          <ChoiceWord
            name="View"
            text={view === "balance" ? "trial balance" : "entries"}
            value={view}
            choices={[
              { value: "entries", text: "entries" },
              { value: "balance", text: "trial balance" },
            ]}
            onChange={(value) => change({ view: value })}
          />{" "}
          of{" "}
          <ChoiceWord
            name="Period"
            text={month.name}
            value={month.month}
            choices={periods.map((p) => ({
              value: p.month,
              text: p.name,
              detail: p.locked ? "locked" : "open",
            }))}
            onChange={(value) => change({ month: value })}
          />
          , {month.locked ? "locked" : "open"}.
        </>
      }
      answer={
        <>
          <LockPart period={month} />
          <span className="ml-auto">
            <Download path={`/api/ledger/${month.month}/csv`}>the month as CSV</Download>
          </span>
        </>
      }
      list={view === "balance" ? <TrialBalance month={month.month} /> : <Entries month={month.month} />}
    />
  );
}

function LockPart({ period }: { period: Schemas["PeriodView"] }) {
  const session = useSession();
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  if (!session.roles.includes("CONTROLLER"))
    return <span>{period.locked ? "Nothing can be written into it." : "A controller locks it."}</span>;
  const path = { params: { path: { month: period.month } } };
  return (
    <>
      <Button look="bare" onClick={() => setAsking(true)}>
        {period.locked ? "Unlock it…" : "Lock it…"}
      </Button>
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`${period.locked ? "Unlock" : "Lock"} ${period.name}`}
        deed={`${period.locked ? "Unlock" : "Lock"} ${period.name}`}
        grave={period.locked}
        reason={period.locked ? "Why it is unlocked" : undefined}
        run={async (reason) => {
          if (period.locked)
            await call(api.POST("/api/periods/{month}/unlock", { ...path, body: { reason } }));
          else await call(api.POST("/api/periods/{month}/lock", path));
          await queries.invalidateQueries();
        }}
      >
        <p>
          {period.locked
            ? "Entries can be dated in it again; the proof keeps the totals it had while it was locked."
            : "Its totals are kept, and nothing more can be dated in it."}
        </p>
      </DeedDialog>
    </>
  );
}

const ENTRY_COLUMNS: Column<Line>[] = [
  { title: "Account", width: "minmax(220px,380px)", cell: (l) => <span className="pl-4">{l.account}</span> },
  { title: "Debit", width: "130px", right: true, cell: (l) => l.debit },
  { title: "Credit", width: "130px", right: true, cell: (l) => l.credit },
  {
    title: "Currency",
    quiet: true,
    width: "1fr",
    cell: (l) => <span className="text-faint text-[13px]">{l.currency}</span>,
  },
];

function Entries({ month }: { month: string }) {
  const [cursor, setCursor] = useState<string>();
  const pages = useInfiniteQuery({
    queryKey: ["entries", month],
    initialPageParam: undefined as string | undefined,
    queryFn: ({ pageParam }) =>
      call(
        api.GET("/api/ledger/{month}/entries", { params: { path: { month }, query: { after: pageParam } } }),
      ),
    getNextPageParam: (page) => page.next ?? undefined,
  });
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  const items: Item<Line>[] = (pages.data?.pages ?? [])
    .flatMap((page) => page.entries)
    .flatMap((entry) => [
      {
        key: `e${entry.id}`,
        heading: (
          <div className="flex gap-3">
            <span className="w-24">{shortDate(entry.date)}</span>
            <b className="min-w-0 flex-1 truncate">{entry.text}</b>
            <span className="text-faint text-[13px]">
              {entry.kind.toLowerCase()}, {entry.by}
            </span>
          </div>
        ),
      },
      ...entry.lines.map((row, i) => ({ key: `e${entry.id}-${i}`, row })),
    ]);
  return (
    <Loaded query={pages}>
      {(data) => (
        <>
          <p className="text-faint px-4 pt-2 text-[13px]">
            <Figure value={data.pages[0]?.total ?? 0}>entries, newest first</Figure>
          </p>
          <Grid
            label="Entries"
            items={items}
            columns={ENTRY_COLUMNS}
            cursor={cursor}
            onCursor={setCursor}
            onEnd={() => {
              if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
            }}
            empty="Nothing was written into this month yet."
          />
        </>
      )}
    </Loaded>
  );
}

/** A balance; one without “cr” keeps its place free, so that the decimal points stand in one line. */
function Balance({ of }: { of: Schemas["BalanceView"] }) {
  return (
    <>
      {of.text}
      <span className={of.credit ? "" : "invisible"}> cr</span>
    </>
  );
}

function TrialBalance({ month }: { month: string }) {
  const balance = useQuery({
    queryKey: ["balance", month],
    queryFn: () => call(api.GET("/api/ledger/{month}/trial-balance", { params: { path: { month } } })),
  });
  return <Loaded query={balance}>{(data) => <Balances balance={data} />}</Loaded>;
}

function Balances({ balance }: { balance: Schemas["TrialBalanceView"] }) {
  return (
    <div className="min-h-0 flex-1 overflow-auto px-4 py-2" tabIndex={0} data-list>
      <table className="w-full max-w-5xl">
        <thead className="text-faint text-[13px]">
          <tr>
            <th className="py-1.5 text-left font-semibold">Account</th>
            <th className="text-right font-semibold">At the start</th>
            <th className="text-right font-semibold">Debit</th>
            <th className="text-right font-semibold">Credit</th>
            <th className="text-right font-semibold">At the end</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {balance.lines.map((line) => (
            <tr key={line.account + line.currency} className="border-hair border-t">
              <td className="py-1.5">{line.account}</td>
              <td className="text-right">
                <Balance of={line.opening} />
              </td>
              <td className="text-right">{line.debit}</td>
              <td className="text-right">{line.credit}</td>
              <td className="text-right">
                <Balance of={line.closing} />
              </td>
              <td className="text-faint pl-3 text-[13px]">{line.currency}</td>
            </tr>
          ))}
          {balance.totals.map((total) => (
            <tr key={total.account} className="border-ink border-t font-bold">
              <td className="py-1.5">{total.account}</td>
              <td />
              <td className="text-right">{total.debit}</td>
              <td className="text-right">{total.credit}</td>
              <td />
              <td />
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
