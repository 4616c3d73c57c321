import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import type { paths } from "../api/schema";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Station } from "../frame/Station";
import { Download } from "../parts/Download";
import { Grid, type Column, type Item } from "../parts/Grid";
import { longDate } from "../parts/dates";
import { Loaded } from "../parts/Loaded";
import { ChoiceWord, DayWord } from "../parts/Word";

type Report = Schemas["ReportView"];
type Line = Report["lines"][number];

type Asked = NonNullable<paths["/api/reports/{name}"]["get"]["parameters"]["query"]>;

/** A report by its name, as it is asked for. */
export function Named({
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

/** A report as of a day that is chosen in its sentence. */
export function AsOf({
  name,
  words,
  back,
}: {
  name: string;
  words: string;
  back?: (on: string) => { to: string; words: string };
}) {
  const { today } = useSession();
  const [values, change] = useAddress();
  const on = values.on ?? today;
  return (
    <Named
      name={name}
      asked={{ on }}
      back={back?.(on)}
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

/** A report of a year that is chosen in its sentence. */
export function OfYear({
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
