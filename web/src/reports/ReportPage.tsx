import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Station } from "../frame/Station";
import { Download } from "../parts/Download";
import { Grid, type Column, type Item } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";

type Report = Schemas["ReportView"];
type Line = Report["lines"][number];

/** What a batch will pay, payee by payee. */
export function PaymentsListPage() {
  const id = Number(useParams().id);
  const report = useQuery({
    queryKey: ["payments-list", id],
    queryFn: () => call(api.GET("/api/batches/{id}/payments-list", { params: { path: { id } } })),
  });
  return (
    <Loaded query={report}>
      {(data) => (
        <Listed
          name="payments-list"
          report={data}
          file={`/api/batches/${id}/payments-list`}
          back={{ to: `/batches/${id}`, words: "Back to the batch" }}
        />
      )}
    </Loaded>
  );
}

/** What was printed of a batch, sheet by sheet. */
export function RunRegisterPage() {
  const id = Number(useParams().id);
  const report = useQuery({
    queryKey: ["run-register", id],
    queryFn: () => call(api.GET("/api/batches/{id}/run-register", { params: { path: { id } } })),
  });
  return (
    <Loaded query={report}>
      {(data) => (
        <Listed
          name="run-register"
          report={data}
          file={`/api/batches/${id}/run-register`}
          back={{ to: `/print/${id}`, words: "Back to printing" }}
        />
      )}
    </Loaded>
  );
}

function Listed({
  name,
  report,
  file,
  back,
}: {
  name: string;
  report: Report;
  file: string;
  back: { to: string; words: string };
}) {
  const [values, change] = useAddress();
  return (
    <Station
      title={report.title}
      sentence={<b>{report.title}</b>}
      answer={
        <>
          {report.facts.map((fact) => (
            <span key={fact}>{fact}</span>
          ))}
          <span className="ml-auto">
            <a className="go mr-3" href={`${file}.pdf`} target="_blank" rel="noreferrer">
              PDF
            </a>
            <Download path={`${file}.csv`} />
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
          empty="Nothing stands on this list yet."
        />
      }
      bar={
        <Link className="go" to={back.to}>
          {back.words}
        </Link>
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
    cell: ({ kind, cells }) => (kind === "TOTAL" ? <b>{cells[i]}</b> : cells[i]),
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
