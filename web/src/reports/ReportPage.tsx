import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link, useParams } from "react-router";
import { api, call, type Schemas } from "../api/client";
import type { paths } from "../api/schema";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Station } from "../frame/Station";
import { Download } from "../parts/Download";
import { Grid, type Column, type Item } from "../parts/Grid";
import { longDate } from "../parts/dates";
import { PeriodLock } from "../ledger/PeriodDeeds";
import { Loaded } from "../parts/Loaded";
import { ChoiceWord, DayWord } from "../parts/Word";

type Report = Schemas["ReportView"];
type Line = Report["lines"][number];

type Asked = NonNullable<paths["/api/reports/{name}"]["get"]["parameters"]["query"]>;

/** A report by its name, as it is asked for. */
function Named({
  name,
  asked,
  sentence,
  back,
  deeds,
  empty,
}: {
  name: string;
  asked: Asked;
  deeds?: ReactNode;
  sentence?: ReactNode;
  back?: { to: string; words: string };
  empty?: string;
}) {
  const report = useQuery({
    queryKey: ["report", name, asked],
    queryFn: () => call(api.GET("/api/reports/{name}", { params: { path: { name }, query: asked } })),
    placeholderData: keepPreviousData,
  });
  return (
    <Loaded query={report}>
      {(data) => (
        <Listed
          name={name}
          report={data}
          asked={asked}
          sentence={sentence}
          back={back}
          deeds={deeds}
          empty={empty}
        />
      )}
    </Loaded>
  );
}

const useBatch = () => Number(useParams().id);

/** What a batch will pay, payee by payee. */
export function PaymentsListPage() {
  const batch = useBatch();
  return (
    <Named
      name="payments-list"
      asked={{ batch }}
      back={{ to: `/batches/${batch}`, words: "Back to the batch" }}
    />
  );
}

/** What was printed of a batch, sheet by sheet. */
export function RunRegisterPage() {
  const batch = useBatch();
  return (
    <Named
      name="run-register"
      asked={{ batch }}
      back={{ to: `/print/${batch}`, words: "Back to printing" }}
    />
  );
}

/** What was posted of a batch, payment by payment. */
export function PostingRegisterPage() {
  const batch = useBatch();
  return (
    <Named
      name="posting-register"
      asked={{ batch }}
      back={{ to: `/batches/${batch}/recap`, words: "Debits and credits" }}
    />
  );
}

/** Debits and credits of a batch, by month and account. */
export function PostingRecapPage() {
  const batch = useBatch();
  return (
    <Named name="posting-recap" asked={{ batch }} back={{ to: `/batches/${batch}/jobs`, words: "By job" }} />
  );
}

/** The money of a batch by the jobs and accounts of what it paid. */
export function PostingJobsPage() {
  const batch = useBatch();
  return (
    <Named
      name="posting-jobs"
      asked={{ batch }}
      back={{ to: `/batches/${batch}/posted`, words: "Payment by payment" }}
    />
  );
}

/** A report as of a day that is chosen in its sentence. */
function AsOf({ name, words }: { name: string; words: string }) {
  const { today } = useSession();
  const [values, change] = useAddress();
  const on = values.on ?? today;
  return (
    <Named
      name={name}
      asked={{ on }}
      sentence={
        <>
          {words}{" "}
          <DayWord
            name="As of"
            text={longDate(on)}
            value={on}
            onChange={(next) => change({ on: next, at: undefined })}
          />
          .
        </>
      }
    />
  );
}

export function AgingPage() {
  return <AsOf name="aging" words="What was owed at the end of" />;
}

export function OutstandingPage() {
  return <AsOf name="outstanding" words="Checks the bank had not paid at the end of" />;
}

/** What a month still holds before it is locked; any day of it says which month. */
export function ClosingPage() {
  const { today } = useSession();
  const [values, change] = useAddress();
  const periods = useQuery({ queryKey: ["periods"], queryFn: () => call(api.GET("/api/periods")) });
  const month = values.month ?? (values.on ?? today).slice(0, 7);
  const period = periods.data?.find((one) => one.month === month);
  return (
    <Named
      name="closing"
      asked={{ on: `${month}-01` }}
      empty="Nothing of this month waits: all of it is posted, answered and told."
      sentence={
        <>
          What is still to be looked at in{" "}
          <ChoiceWord
            name="Month"
            text={period?.name ?? month}
            value={month}
            choices={(periods.data ?? []).map((one) => ({
              value: one.month,
              text: one.name,
              detail: one.stand,
            }))}
            onChange={(next) => change({ month: next, on: undefined, at: undefined })}
          />
          {period && `, ${period.stand}`}.
        </>
      }
      deeds={period && <PeriodLock key={period.month} period={period} />}
    />
  );
}

/** A report of a year that is chosen in its sentence. */
function OfYear({
  name,
  words,
  empty,
  back,
}: {
  name: string;
  words: string;
  empty: string;
  back?: (year: number) => { to: string; words: string };
}) {
  const { today } = useSession();
  const [values, change] = useAddress();
  const now = Number(today.slice(0, 4));
  const year = Number(values.year) || now;
  return (
    <Named
      name={name}
      asked={{ year }}
      back={back?.(year)}
      empty={empty}
      sentence={
        <>
          {words}{" "}
          <ChoiceWord
            name="Year"
            text={String(year)}
            value={String(year)}
            choices={[now, now - 1, now - 2, now - 3].map((one) => ({
              value: String(one),
              text: String(one),
            }))}
            onChange={(next) => change({ year: next, at: undefined })}
          />
          .
        </>
      }
    />
  );
}

/** What reportable vendors were paid in a year. */
export function ReportablePage() {
  return (
    <OfYear
      name="reportable"
      words="What reportable vendors were paid in"
      empty="No vendor that was paid in that year is reported. What a vendor is reported as stands on its page."
      back={(year) => ({ to: `/reportable/changed?year=${year}`, words: "Undone in a later year" })}
    />
  );
}

/** Checks whose money went to the state of their payee in a year. */
export function UnclaimedPage() {
  return (
    <OfYear
      name="unclaimed"
      words="What was handed over as unclaimed in"
      empty="Nothing was handed over in that year."
      back={() => ({ to: "/stale", words: "Checks not presented" })}
    />
  );
}

function Listed({
  name,
  report,
  asked,
  sentence,
  back,
  deeds,
  empty = "Nothing stands on this list yet.",
}: {
  name: string;
  report: Report;
  asked: Asked;
  sentence?: ReactNode;
  back?: { to: string; words: string };
  deeds?: ReactNode;
  empty?: string;
}) {
  const query = new URLSearchParams(
    Object.entries(asked).flatMap(([key, value]) => (value ? [[key, String(value)]] : [])),
  );
  const [values, change] = useAddress();
  return (
    <Station
      title={report.title}
      sentence={sentence ?? <b>{report.title}</b>}
      answer={
        <>
          {report.facts.map((fact) => (
            <span key={fact}>{fact}</span>
          ))}
          <span className="ml-auto">
            <a
              className="go mr-3"
              href={`/api/reports/${name}/pdf?${query}`}
              target="_blank"
              rel="noreferrer"
            >
              PDF
            </a>
            <Download path={`/api/reports/${name}/csv`} params={asked} />
          </span>
        </>
      }
      list={
        <Grid
          list={name}
          label={report.title}
          items={itemsOf(report)}
          columns={columnsOf(report)}
          cursor={values.at}
          onCursor={(at) => change({ at })}
          empty={empty}
        />
      }
      bar={
        (back || deeds) && (
          <>
            {deeds}
            {back && (
              <Link className="go" to={back.to}>
                {back.words}
              </Link>
            )}
          </>
        )
      }
    />
  );
}

function columnsOf(report: Report): Column<Line>[] {
  return report.heads.map((head, i) => ({
    key: head.title,
    title: head.title,
    width: head.right ? "130px" : `minmax(110px,${head.share}fr)`,
    right: head.right,
    // totals stay below what they sum up, whatever somebody sorts by
    value: () => undefined,
    words: ({ cells }) => cells[i] ?? "",
    cell: ({ kind, cells, leads }) =>
      kind === "TOTAL" ? (
        <b>{cells[i]}</b>
      ) : leads && i === 0 ? (
        <Link className="go" to={leads}>
          {cells[i]}
        </Link>
      ) : (
        cells[i]
      ),
  }));
}

function itemsOf(report: Report): Item<Line>[] {
  return report.lines.map((line, i) =>
    line.kind === "GROUP"
      ? {
          key: `g${i}`,
          heading: (
            <span>
              <b>{line.cells[0]}</b> <span className="text-faint">{line.cells[1]}</span>
            </span>
          ),
        }
      : { key: String(i), row: line },
  );
}
