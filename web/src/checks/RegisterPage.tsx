import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { api, call, type Schemas } from "../api/client";
import type { paths } from "../api/schema";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { toast } from "sonner";
import { longDate } from "../parts/dates";
import { Download } from "../parts/Download";
import { Grid, type Column } from "../parts/Grid";
import { everyPage } from "../parts/PrintedList";
import { writeRanges } from "../parts/ranges";
import { useArrangement } from "../parts/useArrangement";
import { LevelStrip } from "../proof/LevelStrip";
import { CheckSlip } from "./CheckSlip";
import { nameOf, RegisterWords } from "./RegisterWords";
import { StubsAgain } from "./StubsAgain";

type Series = Schemas["SeriesView"];
type NumberRow = Schemas["NumberView"];
type Order = NonNullable<paths["/api/checks"]["get"]["parameters"]["query"]>["sortedBy"];
const LOOKS: Record<string, string> = {
  SPOILED: "text-brass",
  UNACCOUNTED: "text-rust",
  VOIDED: "text-brass",
  STOPPED: "text-rust",
};

/** What became of it, and that no printer of ours wrote it. */
const thenOf = (n: NumberRow) => [n.byHand && "written by hand", n.then].filter(Boolean).join("; ");

const columnsOf = (all: Series[], every: boolean): Column<NumberRow>[] => [
  ...(every
    ? [
        {
          key: "account",
          title: "Account",
          width: "minmax(90px,0.8fr)",
          cell: (n: NumberRow) => {
            const series = all.find((one) => one.id === n.series);
            return series ? nameOf(series, all) : "";
          },
        },
      ]
    : []),

  {
    key: "NUMBER",
    sorts: true,
    title: "Number",
    width: "76px",
    words: (n) => n.name,
    cell: (n) => <span className="font-mono">{n.name}</span>,
  },
  {
    key: "STATE",
    sorts: true,
    title: "State",
    width: "98px",
    cell: (n) => <span className={LOOKS[n.state] ?? ""}>{n.stateWords}</span>,
  },
  { key: "PAYEE", sorts: true, title: "Payee", width: "minmax(150px,1.6fr)", cell: (n) => n.payee || "–" },
  {
    key: "CHECK_DATE",
    sorts: true,
    title: "Check date",
    width: "124px",
    cell: (n) => (n.checkDate ? longDate(n.checkDate) : ""),
  },
  {
    key: "AMOUNT",
    sorts: true,
    title: "Amount",
    width: "92px",
    right: true,
    cell: (n) => n.amount?.text ?? "–",
  },
  {
    key: "then",
    title: "Then",
    width: "minmax(130px,1.3fr)",
    words: (n) => thenOf(n),
    cell: (n) => <span className={n.look ? "text-brass" : "text-faint"}>{thenOf(n)}</span>,
  },
];

/** Every number of a series, none missing. */
export function RegisterPage() {
  const all = useQuery({
    queryKey: ["number-series"],
    queryFn: () => call(api.GET("/api/checks/series")),
  });
  return (
    <Loaded query={all}>
      {(data) =>
        data.length ? (
          <Register all={data} />
        ) : (
          <p className="p-4 text-faint">
            No account pays by check yet. An administrator gives one a series of check numbers.
          </p>
        )
      }
    </Loaded>
  );
}

const itemsOf = (pages: Schemas["RegisterView"][]) =>
  pages.flatMap((page) => page.rows).map((row) => ({ key: String(row.id), row }));

/** What can be done with several numbers at once. */
function Selected({ rows }: { rows: NumberRow[] }) {
  const navigate = useNavigate();
  const { roles } = useSession();
  const queries = useQueryClient();
  const [stopping, setStopping] = useState(false);
  const payments = rows.flatMap((row) =>
    (row.state === "OUTSTANDING" || row.state === "STOPPED") && row.payment ? [row.payment] : [],
  );
  const unstopped = rows.flatMap((row) => (row.state === "OUTSTANDING" && row.payment ? [row.payment] : []));
  const checks = `${unstopped.length} ${unstopped.length === 1 ? "check" : "checks"}`;
  return (
    <>
      <Figure value={rows.length}>selected, {payments.length} of them can be voided</Figure>
      <StubsAgain rows={rows} />
      <Button
        disabled={payments.length === 0 || !roles.includes("CLERK")}
        onClick={() => navigate(`/undo?payments=${writeRanges(payments)}`)}
      >
        Void {payments.length} checks…
      </Button>
      {roles.includes("CLERK") && unstopped.length > 0 && (
        <Button onClick={() => setStopping(true)}>Stop {checks}…</Button>
      )}
      <DeedDialog
        open={stopping}
        onClose={() => setStopping(false)}
        title={`Stop ${checks}`}
        deed={`Stop ${checks}`}
        reason="Why they are stopped"
        run={async (reason) => {
          await call(api.POST("/api/stops", { body: { payments: unstopped, reason } }));
          await queries.invalidateQueries();
          toast(`${checks} stopped here. Ask the bank for them, and write down what it answers.`);
        }}
      >
        <p>
          All of them, or none. They stay in the ledger and their invoices stay paid; each waits for the
          bank’s answer.
        </p>
      </DeedDialog>
    </>
  );
}

function Register({ all }: { all: Series[] }) {
  const [values, change] = useAddress();
  const series =
    values.series === "all" ? undefined : (all.find((s) => String(s.id) === values.series) ?? all[0]!);
  const cursor = values.check;
  const [{ sortedBy, descending }] = useArrangement("register");
  const narrowed = {
    series: series?.id,
    state: values.state,
    text: values.text,
    amountFrom: values.least,
    amountTo: values.most,
    from: values.from,
    to: values.to,
    olderThan: values.older ? Number(values.older) : undefined,
  };
  const asked = { ...narrowed, sortedBy: sortedBy as Order, descending };
  const pages = useInfiniteQuery({
    queryKey: ["register", asked],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      call(api.GET("/api/checks", { params: { query: { ...asked, after: pageParam } } })),
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: keepPreviousData,
  });
  const totals = useQuery({
    queryKey: ["register", "totals", narrowed],
    queryFn: () => call(api.GET("/api/checks/totals", { params: { query: narrowed } })),
    placeholderData: keepPreviousData,
  });
  const first = pages.data?.pages[0];
  const rows = pages.data?.pages.flatMap((page) => page.rows) ?? [];
  const at = rows.find((row) => String(row.id) === cursor);
  const [selected, setSelected] = useState<Set<string>>(new Set());
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  const every = series === undefined;
  const columns = useMemo(() => columnsOf(all, every), [all, every]);
  return (
    <Station
      title="Register"
      sentence={
        <RegisterWords all={all} series={series} values={values} sorted={Boolean(sortedBy)} change={change} />
      }
      answer={
        first && (
          <>
            <span>
              {first.first !== undefined && first.first !== null && `${first.first} to ${first.last}: `}
              {totals.data ? (
                <>
                  <b className="text-ink">{totals.data.total}</b>{" "}
                  {totals.data.total === 1 ? "number" : "numbers"}
                </>
              ) : (
                <span className={totals.isError ? "text-rust" : ""}>
                  {totals.isError ? "how many could not be counted just now" : "counting…"}
                </span>
              )}
            </span>
            {totals.data?.states.map((total) => (
              <span
                key={`${total.state} ${total.amount?.currency ?? ""}`}
                className={LOOKS[total.state] ?? ""}
              >
                <b className={LOOKS[total.state] ? "" : "text-ink"}>{total.count}</b> {total.words}
                {total.amount &&
                  (total.state === "OUTSTANDING" || total.state === "STOPPED") &&
                  `, ${total.amount.text} ${total.amount.currency}`}
              </span>
            ))}
            <span className="ml-auto">
              <Download path="/api/checks/csv" params={asked} />
            </span>
          </>
        )
      }
      list={
        <Loaded query={pages}>
          {() => (
            <Grid
              list="register"
              label="Check numbers"
              items={itemsOf(pages.data?.pages ?? [])}
              all={async () => itemsOf(await everyPage(pages))}
              columns={columns}
              cursor={cursor}
              onCursor={(key) => change({ check: key })}
              selected={selected}
              onSelect={setSelected}
              dim={(row) => row.state === "SPOILED" || row.state === "UNACCOUNTED" || row.state === "VOIDED"}
              onEnd={() => {
                if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
              }}
              empty="No number is like that. Numbers appear here when checks are printed."
            />
          )}
        </Loaded>
      }
      bar={selected.size > 1 && <Selected rows={rows.filter((row) => selected.has(String(row.id)))} />}
      slip={
        cursor ? (
          <CheckSlip key={cursor} id={Number(cursor)} />
        ) : (
          <p className="text-faint">Move the cursor onto a number.</p>
        )
      }
      strip={at?.batch ? <LevelStrip batch={at.batch} /> : undefined}
    />
  );
}
