import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { toast } from "sonner";
import { api, call, Refused, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Skeleton, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import { Download } from "../parts/Download";
import { Grid, type Column } from "../parts/Grid";
import { ChoiceWord } from "../parts/Word";

type Kind = "VENDORS" | "INVOICES" | "UBL";
type Import = Schemas["ImportView"];

const KINDS: Record<Kind, string> = {
  INVOICES: "invoices and credits (CSV)",
  VENDORS: "vendors (CSV)",
  UBL: "invoices and credit notes (UBL 2.1 XML)",
};

const count = (n: number) => n.toLocaleString("en-US");

const COLUMNS: Column<Import>[] = [
  { title: "File", width: "minmax(100px,1.4fr)", cell: (i) => i.fileName },
  { title: "Is", width: "minmax(110px,1fr)", cell: (i) => i.stateWords.replace(/^is |^was /, "") },
  { title: "Sent", width: "96px", cell: (i) => `${i.by.split(" ")[0]}, ${clock(i.at)}` },
  { title: "Rows", width: "62px", right: true, cell: (i) => count(i.rows) },
  { title: "Good", width: "62px", right: true, cell: (i) => count(i.good) },
  {
    title: "Refused",
    width: "58px",
    right: true,
    cell: (i) => <span className={i.refused > 0 ? "text-rust" : ""}>{count(i.refused)}</span>,
  },
  { title: "Here already", width: "82px", right: true, cell: (i) => count(i.duplicates) },
  { title: "Brought in", width: "70px", right: true, cell: (i) => count(i.broughtIn) },
];

/** Files to bring in: checked first, row by row; then all of it or only what is good. */
export function ImportsPage() {
  const session = useSession();
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const [sending, setSending] = useState(false);
  const kind = (values.kind ?? "INVOICES") as Kind;
  const list = useQuery({
    queryKey: ["imports"],
    queryFn: () => call(api.GET("/api/imports")),
    refetchInterval: (query) => (query.state.data?.some((one) => one.running) ? 700 : 10_000),
  });
  const at = list.data?.find((one) => String(one.id) === values.at);
  const clerk = session.roles.includes("CLERK");
  const send = async (files: FileList | null) => {
    if (!files || files.length === 0) return;
    setSending(true);
    try {
      const form = new FormData();
      for (const file of files) form.append("file", file);
      const sent = await call(
        api.POST("/api/imports", {
          params: { query: { kind } },
          // a form with files; its parts are no JSON
          body: form as never,
          bodySerializer: (body) => body as unknown as FormData,
        }),
      );
      await queries.invalidateQueries({ queryKey: ["imports"] });
      change({ at: String(sent.id) });
    } catch (error) {
      toast.error(error instanceof Refused ? error.message : "The file could not be sent. Try again.", {
        duration: 12_000,
      });
    } finally {
      setSending(false);
    }
  };
  return (
    <Station
      title="Bring in files"
      sentence={
        <>
          Bring in{" "}
          <ChoiceWord
            name="Kind of file"
            text={KINDS[kind]}
            value={kind}
            choices={(Object.keys(KINDS) as Kind[]).map((value) => ({ value, text: KINDS[value] }))}
            onChange={(value) => change({ kind: value })}
          />
          : every file is checked row by row before anything comes in.
        </>
      }
      answer={
        <>
          <Figure value={list.data?.length ?? 0}>{list.data?.length === 1 ? "file" : "files"}</Figure>
          {kind !== "UBL" && (
            <Download path={`/api/imports/sample/${kind}`}>a sample with all columns</Download>
          )}
        </>
      }
      list={
        list.isPending ? (
          <Skeleton />
        ) : (
          <Grid
            label="Files"
            items={list.data?.map((row) => ({ key: String(row.id), row })) ?? []}
            columns={COLUMNS}
            cursor={values.at}
            onCursor={(key) => change({ at: key })}
            empty="No file was sent yet. Choose what you have in the sentence above, then choose the file below."
          />
        )
      }
      bar={
        <>
          <label
            className={`bg-harbour text-onharbour inline-flex min-h-8 items-center px-3 font-bold focus-within:outline-2 ${clerk && !sending ? "cursor-pointer" : "opacity-50"}`}
          >
            {sending ? "Sending…" : kind === "UBL" ? "Choose documents…" : "Choose a file…"}
            <input
              type="file"
              className="sr-only"
              multiple={kind === "UBL"}
              accept={kind === "UBL" ? ".xml" : ".csv,.txt"}
              disabled={!clerk || sending}
              onChange={(event) => {
                void send(event.target.files);
                event.target.value = "";
              }}
            />
          </label>
          <span className="text-faint text-[13px]">The work goes on when this page is closed.</span>
        </>
      }
      slip={at ? <About key={at.id} job={at} clerk={clerk} /> : <Explained kind={kind} />}
    />
  );
}

/** The documented columns. */
function Explained({ kind }: { kind: Kind }) {
  const columns = useQuery({
    queryKey: ["import-columns", kind],
    queryFn: () => call(api.GET("/api/imports/columns/{kind}", { params: { path: { kind } } })),
  });
  if (kind === "UBL")
    return (
      <p>
        UBL 2.1 Invoice and CreditNote documents, one in each file, several at a time. The vendor’s number
        stands as CustomerAssignedAccountID (or the party’s identification), accounts as AccountingCost; where
        a document names no account, the one of the vendor’s last invoice is taken. What tax and charges add
        becomes a line of its own.
      </p>
    );
  return (
    <table className="w-full text-[13px]">
      <caption className="mb-1 text-left text-sm font-semibold">Columns, found by their names</caption>
      <tbody>
        {columns.data?.map((column) => (
          <tr key={column.name} className="border-hair border-t align-top">
            <th scope="row" className="py-1 pr-3 text-left font-mono font-normal whitespace-nowrap">
              {column.name}
              {column.required && <b className="text-brass"> *</b>}
            </th>
            <td className="py-1">
              {column.about}
              {column.example && <span className="text-faint block font-mono">{column.example}</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** How far one file has come, what is refused and why, and what to do next. */
function About({ job, clerk }: { job: Import; clerk: boolean }) {
  const queries = useQueryClient();
  const [refused, setRefused] = useState<string>();
  const rows = useQuery({
    queryKey: ["import-rows", job.id, job.state, job.refused],
    enabled: job.refused > 0,
    queryFn: () =>
      call(
        api.GET("/api/imports/{id}/rows", {
          params: { path: { id: job.id }, query: { outcome: "REFUSED" } },
        }),
      ),
  });
  const doing = async (deed: Promise<unknown>) => {
    try {
      await deed;
      setRefused(undefined);
      await queries.invalidateQueries({ queryKey: ["imports"] });
      await queries.invalidateQueries({ queryKey: ["work"] });
    } catch (error) {
      setRefused(error instanceof Refused ? error.message : "That failed. Try again.");
    }
  };
  const path = { params: { path: { id: job.id } } };
  const bringIn = (onlyGood: boolean) =>
    void doing(call(api.POST("/api/imports/{id}/bring-in", { ...path, body: { onlyGood } })));
  const done = job.state === "BRINGING" || job.state === "DONE" ? job.broughtIn : job.rows;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="font-semibold break-all">{job.fileName}</h2>
      <p aria-live="polite">
        It {job.stateWords}: <b>{count(job.rows)}</b> rows read, <b>{count(job.good)}</b> good,{" "}
        <b>{count(job.refused)}</b> refused, <b>{count(job.duplicates)}</b> here already,{" "}
        <b>{count(job.broughtIn)}</b> brought in.
      </p>
      {job.running && (
        <progress
          aria-label="Progress"
          className="accent-harbour w-full"
          max={job.state === "BRINGING" ? job.good : undefined}
          value={job.state === "BRINGING" ? done : undefined}
        />
      )}
      {job.trouble && <p className="border-brass border-l-4 pl-3">{job.trouble}</p>}
      {job.state === "COLUMNS" && clerk && (
        <Columns
          job={job}
          onChosen={(mapping) =>
            void doing(call(api.POST("/api/imports/{id}/mapping", { ...path, body: { mapping } })))
          }
        />
      )}
      {job.state === "CHECKED" && clerk && (
        <div className="flex flex-wrap gap-2">
          {job.refused === 0 && job.good > 0 && (
            <Button look="deed" onClick={() => bringIn(false)}>
              Bring in all {count(job.good)}
            </Button>
          )}
          {job.refused > 0 && job.good > 0 && (
            <Button look="deed" onClick={() => bringIn(true)}>
              Bring in only the {count(job.good)} good {job.good === 1 ? "one" : "ones"}
            </Button>
          )}
        </div>
      )}
      {clerk && ["COLUMNS", "CHECKED", "FAILED"].includes(job.state) && (
        <Button
          className="self-start"
          onClick={() => void doing(call(api.POST("/api/imports/{id}/discard", path)))}
        >
          Discard the file
        </Button>
      )}
      {refused && (
        <p role="alert" className="border-rust text-rust border-l-4 pl-3">
          {refused}
        </p>
      )}
      {job.refused > 0 && (
        <section>
          <h3 className="mb-1 flex justify-between font-semibold">
            Refused rows
            <Download path={`/api/imports/${job.id}/refused/csv`} />
          </h3>
          <ul>
            {rows.data?.map((row) => (
              <li key={row.line} className="border-hair border-b py-1 text-[13px]">
                <b>line {row.line}</b> {row.identity} <span className="text-rust">{row.reason}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

/** Which column of the file stands for which of ours. */
function Columns({ job, onChosen }: { job: Import; onChosen: (mapping: Record<string, string>) => void }) {
  const columns = useQuery({
    queryKey: ["import-columns", job.kind],
    queryFn: () =>
      call(api.GET("/api/imports/columns/{kind}", { params: { path: { kind: job.kind as Kind } } })),
  });
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const data = new FormData(event.currentTarget);
        const mapping: Record<string, string> = {};
        data.forEach((value, name) => {
          if (value !== "") mapping[name] = String(value);
        });
        onChosen(mapping);
      }}
    >
      {columns.data?.map((column) => (
        <label key={column.name} className="grid grid-cols-[140px_1fr] items-center gap-2">
          <span className="font-mono text-[13px]">
            {column.name}
            {column.required && <b className="text-brass"> *</b>}
          </span>
          <select
            name={column.name}
            defaultValue={
              job.headers.find((h) => h.toLowerCase().replace(/[\s-]+/g, "_") === column.name) ?? ""
            }
          >
            <option value="">no column</option>
            {job.headers.map((header) => (
              <option key={header}>{header}</option>
            ))}
          </select>
        </label>
      ))}
      <Button type="submit" look="deed" className="self-start">
        Check with these columns
      </Button>
    </form>
  );
}
