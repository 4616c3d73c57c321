import { useState } from "react";
import { useNavigate } from "react-router";
import { keepPreviousData, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { api, call, type Schemas } from "../api/client";
import type { paths } from "../api/schema";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { Download } from "../parts/Download";
import { Grid, type Column } from "../parts/Grid";
import { everyPage } from "../parts/PrintedList";
import { writeRanges } from "../parts/ranges";
import { useArrangement } from "../parts/useArrangement";
import { ChoiceWord } from "../parts/Word";
import { LevelStrip } from "../proof/LevelStrip";
import { CheckSlip } from "./CheckSlip";

type Series = Schemas["SeriesView"];
type NumberRow = Schemas["NumberView"];
type Order = NonNullable<paths["/api/checks"]["get"]["parameters"]["query"]>["sortedBy"];
type State =
  "TAKEN" | "PRINTED" | "OUTSTANDING" | "STOPPED" | "CLEARED" | "VOIDED" | "SPOILED" | "UNACCOUNTED";

const STATES: { value: State | "ALL"; text: string }[] = [
  { value: "ALL", text: "every state" },
  { value: "OUTSTANDING", text: "outstanding" },
  { value: "STOPPED", text: "stopped" },
  { value: "CLEARED", text: "cleared" },
  { value: "VOIDED", text: "voided" },
  { value: "SPOILED", text: "spoiled" },
  { value: "UNACCOUNTED", text: "unaccounted" },
  { value: "TAKEN", text: "taken" },
  { value: "PRINTED", text: "printed" },
];
const LOOKS: Record<string, string> = {
  SPOILED: "text-brass",
  UNACCOUNTED: "text-rust",
  VOIDED: "text-brass",
  STOPPED: "text-rust",
};

const COLUMNS: Column<NumberRow>[] = [
  {
    key: "NUMBER",
    sorts: true,
    title: "Number",
    width: "76px",
    cell: (n) => <span className="font-mono">{n.number}</span>,
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
    cell: (n) => <span className={n.look ? "text-brass" : "text-faint"}>{n.then}</span>,
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
  const payments = rows.flatMap((row) =>
    (row.state === "OUTSTANDING" || row.state === "STOPPED") && row.payment ? [row.payment] : [],
  );
  return (
    <>
      <Figure value={rows.length}>selected, {payments.length} of them can be voided</Figure>
      <Button
        disabled={payments.length === 0 || !roles.includes("CLERK")}
        onClick={() => navigate(`/undo?payments=${writeRanges(payments)}`)}
      >
        Void {payments.length} checks…
      </Button>
    </>
  );
}

/** The account's name says which series, as long as it has one. */
function nameOf(series: Series, all: Series[]) {
  const alone = all.filter((s) => s.bankAccount === series.bankAccount).length === 1;
  return alone ? series.account : `${series.account}, ${series.name}`;
}

function Register({ all }: { all: Series[] }) {
  const [values, change] = useAddress();
  const series = all.find((s) => String(s.id) === values.series) ?? all[0]!;
  const state = STATES.find((s) => s.value === values.state) ?? STATES[0]!;
  const cursor = values.check;
  const [{ sortedBy, descending }] = useArrangement("register");
  const asked = {
    series: series.id,
    state: state.value === "ALL" ? undefined : state.value,
    sortedBy: sortedBy as Order,
    descending,
  };
  const pages = useInfiniteQuery({
    queryKey: ["register", asked],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      call(api.GET("/api/checks", { params: { query: { ...asked, after: pageParam } } })),
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: keepPreviousData,
  });
  const first = pages.data?.pages[0];
  const rows = pages.data?.pages.flatMap((page) => page.rows) ?? [];
  const at = rows.find((row) => String(row.id) === cursor);
  const [selected, setSelected] = useState<Set<string>>(new Set());
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  return (
    <Station
      title="Register"
      sentence={
        <>
          Check numbers of{" "}
          <ChoiceWord
            name="Series"
            text={nameOf(series, all)}
            value={String(series.id)}
            choices={all.map((s) => ({ value: String(s.id), text: nameOf(s, all), detail: s.name }))}
            onChange={(value) => change({ series: value, check: undefined })}
          />
          {sortedBy ? "" : ", newest first"}, in{" "}
          <ChoiceWord
            name="State"
            text={state.text}
            value={state.value}
            choices={STATES}
            onChange={(value) => change({ state: value })}
          />
          .
        </>
      }
      answer={
        first && (
          <>
            <span>
              {first.first} to {first.last}: <b className="text-ink">{first.total}</b> numbers
            </span>
            {first.states.map((total) => (
              <span key={total.state} className={LOOKS[total.state] ?? ""}>
                <b className={LOOKS[total.state] ? "" : "text-ink"}>{total.count}</b> {total.words}
                {total.state === "OUTSTANDING" && `, ${total.amount}`}
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
              columns={COLUMNS}
              cursor={cursor}
              onCursor={(key) => change({ check: key })}
              selected={selected}
              onSelect={setSelected}
              dim={(row) => row.state === "SPOILED" || row.state === "UNACCOUNTED" || row.state === "VOIDED"}
              onEnd={() => {
                if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
              }}
              empty="No number in this state. Numbers appear here when checks are printed."
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
