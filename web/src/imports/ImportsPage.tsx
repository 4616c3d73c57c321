import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import { Download } from "../parts/Download";
import { DayField } from "../parts/DayField";
import { Field } from "../parts/Field";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";
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
  { title: "It", width: "minmax(130px,1fr)", cell: (i) => i.stateWords },
  { title: "Sent", width: "132px", cell: (i) => clock(i.at) },
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
  const kind = (values.kind ?? "INVOICES") as Kind;
  const list = useQuery({
    queryKey: ["imports"],
    queryFn: () => call(api.GET("/api/imports")),
    refetchInterval: (query) => (query.state.data?.some((one) => one.running) ? 700 : 10_000),
  });
  const at = list.data?.find((one) => String(one.id) === values.at);
  const clerk = session.roles.includes("CLERK");
  const sending = useDeed(
    (form: FormData) =>
      call(
        api.POST("/api/imports", {
          params: { query: { kind } },
          // a form with files; its parts are no JSON
          body: form as never,
          bodySerializer: (body) => body as unknown as FormData,
        }),
      ),
    {
      done: async (sent) => {
        await queries.invalidateQueries({ queryKey: ["imports"] });
        change({ at: String(sent.id) });
      },
    },
  );
  const send = (files: FileList | null) => {
    if (!files || files.length === 0) return;
    const form = new FormData();
    for (const file of files) form.append("file", file);
    void sending.run(form);
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
        <Loaded query={list}>
          {() => (
            <Grid
              label="Files"
              items={list.data?.map((row) => ({ key: String(row.id), row })) ?? []}
              columns={COLUMNS}
              cursor={values.at}
              onCursor={(key) => change({ at: key })}
              empty="No file was sent yet. Choose what you have in the sentence above, then choose the file below."
            />
          )}
        </Loaded>
      }
      bar={
        <>
          <label
            className={`bg-harbour text-onharbour inline-flex min-h-8 items-center px-3 font-bold focus-within:outline-2 ${clerk && !sending.busy ? "cursor-pointer" : "opacity-50"}`}
          >
            {sending.busy ? "Sending…" : kind === "UBL" ? "Choose documents…" : "Choose a file…"}
            <input
              type="file"
              className="sr-only"
              multiple={kind === "UBL"}
              accept={kind === "UBL" ? ".xml" : ".csv,.txt"}
              disabled={!clerk || sending.busy}
              onChange={(event) => {
                send(event.target.files);
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
        UBL 2.1 Invoice and CreditNote documents, one in each file, up to 2,000 at a time. The vendor is found
        by anything the sender calls itself: our number, endpoint, tax or company number, bank account, name;
        whoever is not known is asked for once. Accounts stand as AccountingCost; where a document names none,
        the one of the vendor’s last invoice is taken. What tax, charges, allowances and prepaid amounts add
        or take off becomes lines of its own, so that the document comes to its payable amount.
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
  const deed = useDeed((does: () => Promise<unknown>) => does(), {
    done: async () => {
      await queries.invalidateQueries({ queryKey: ["imports"] });
      await queries.invalidateQueries({ queryKey: ["work"] });
    },
  });
  // why it is refused stands below
  const doing = (does: () => Promise<unknown>) => void deed.must(does).catch(() => undefined);
  const path = { params: { path: { id: job.id } } };
  const bringIn = (onlyGood: boolean) =>
    doing(() => call(api.POST("/api/imports/{id}/bring-in", { ...path, body: { onlyGood } })));
  const choose = (next: Partial<Schemas["FileChoices"]>) =>
    doing(() =>
      call(
        api.POST("/api/imports/{id}/choices", {
          ...path,
          body: {
            columns: job.columns,
            mark: job.mark,
            ledgerDate: job.ledgerDate,
            account: job.account,
            ...next,
          },
        }),
      ),
    );
  const done = job.state === "BRINGING" || job.state === "DONE" ? job.broughtIn : job.rows;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="font-semibold break-all">{job.fileName}</h2>
      <p className="text-faint text-[13px]">
        Sent by {job.by}, {clock(job.at)}
      </p>
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
      {job.state === "COLUMNS" && clerk && <Columns job={job} onChosen={(columns) => choose({ columns })} />}
      {job.state === "CHECKED" && clerk && (
        <div className="flex flex-wrap gap-2">
          {job.refused === 0 && job.good > 0 && (
            <Button look="deed" disabled={deed.busy} onClick={() => bringIn(false)}>
              Bring in all {count(job.good)}
            </Button>
          )}
          {job.refused > 0 && job.good > 0 && (
            <Button look="deed" disabled={deed.busy} onClick={() => bringIn(true)}>
              Bring in only the {count(job.good)} good {job.good === 1 ? "one" : "ones"}
            </Button>
          )}
        </div>
      )}
      {job.state === "CHECKED" && clerk && job.kind === "UBL" && job.refused > 0 && (
        <Senders
          job={job}
          onKnown={(body) => doing(() => call(api.POST("/api/imports/{id}/senders", { ...path, body })))}
        />
      )}
      {clerk && ["COLUMNS", "CHECKED", "FAILED"].includes(job.state) && job.kind !== "VENDORS" && (
        <WholeFile
          key={`${job.mark} ${job.ledgerDate} ${job.account}`}
          job={job}
          onChosen={(next) => choose(next)}
        />
      )}
      {job.state === "CHECKED" && job.good > 0 && job.kind !== "VENDORS" && <AsRead job={job} />}
      {clerk && ["COLUMNS", "CHECKED", "FAILED"].includes(job.state) && (
        <Button
          className="self-start"
          disabled={deed.busy}
          onClick={() => doing(() => call(api.POST("/api/imports/{id}/discard", path)))}
        >
          Discard the file
        </Button>
      )}
      <Refusal deed={deed} />
      {job.refused > 0 && (
        <section>
          <h3 className="mb-1 flex justify-between font-semibold">
            Refused rows
            <Download path={`/api/imports/${job.id}/refused/csv`} />
          </h3>
          <ul>
            {rows.data?.map((row) => (
              <li key={row.line} className="border-hair border-b py-1 text-[13px]">
                <b>{/^\d/.test(row.place) ? `row ${row.place}` : row.place}</b> {row.identity}{" "}
                <span className="text-rust">{row.reason}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

/** Amounts of the first rows as they were read, before any of them comes in. */
function AsRead({ job }: { job: Import }) {
  const rows = useQuery({
    queryKey: ["import-rows", job.id, job.state, job.mark, "good"],
    queryFn: () =>
      call(
        api.GET("/api/imports/{id}/rows", {
          params: { path: { id: job.id }, query: { outcome: "GOOD" } },
        }),
      ),
  });
  return (
    <section>
      <h3 className="mb-1 font-semibold">The first rows, as they are read</h3>
      <ul className="text-[13px]">
        {rows.data?.slice(0, 5).map((row) => (
          <li key={row.line} className="border-hair flex gap-2 border-b py-0.5">
            <span className="text-faint">{row.place}</span>
            <span className="flex-1 truncate">{row.identity}</span>
            <b>{row.amount}</b>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** One choice for the whole file, where its documents say it otherwise or not at all. */
function WholeFile({
  job,
  onChosen,
}: {
  job: Import;
  onChosen: (next: Partial<Schemas["FileChoices"]>) => void;
}) {
  const [ledgerDate, setLedgerDate] = useState(job.ledgerDate ?? undefined);
  const accounts = useQuery({
    queryKey: ["ledger-accounts"],
    queryFn: () => call(api.GET("/api/ledger-accounts")),
    staleTime: 300_000,
  });
  return (
    <details open={job.refused > 0}>
      <summary className="text-harbour min-h-6 cursor-pointer">How the whole file is read</summary>
      <form
        className="mt-2 flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          const data = new FormData(event.currentTarget);
          onChosen({
            mark: data.get("mark") === "COMMA" ? "COMMA" : "POINT",
            ledgerDate,
            account: String(data.get("account") ?? "") || undefined,
          });
        }}
      >
        {job.kind !== "UBL" && (
          <Field label="Decimals stand after" small>
            <select name="mark" defaultValue={job.mark}>
              <option value="POINT">a point: 1,250.00</option>
              <option value="COMMA">a comma: 1.250,00</option>
            </select>
          </Field>
        )}
        <DayField
          label="Ledger date of documents of locked months"
          value={ledgerDate ?? ""}
          onDay={setLedgerDate}
        />
        <Field label="Account of lines that name none" small>
          <select name="account" defaultValue={job.account ?? ""}>
            <option value="">{job.kind === "UBL" ? "the vendor’s usual one" : "none: refuse them"}</option>
            {accounts.data
              ?.filter((one) => one.kind === "EXPENSE" && one.open)
              .map((one) => (
                <option key={one.id} value={one.code}>
                  {one.code} {one.name}
                </option>
              ))}
          </select>
        </Field>
        <Button type="submit" className="self-start">
          Check it again like this
        </Button>
      </form>
    </details>
  );
}

/** Senders nobody knows: whose documents are these? Asked once; from then on they are known. */
function Senders({
  job,
  onKnown,
}: {
  job: Import;
  onKnown: (known: { sender: number; vendor: number }) => void;
}) {
  const senders = useQuery({
    queryKey: ["import-senders", job.id, job.state, job.refused],
    queryFn: () => call(api.GET("/api/imports/{id}/senders", { params: { path: { id: job.id } } })),
  });
  return (
    <ul>
      {senders.data?.map((one) => (
        <Sender key={one.sender} sender={one} onKnown={(vendor) => onKnown({ sender: one.sender, vendor })} />
      ))}
    </ul>
  );
}

function Sender({
  sender,
  onKnown,
}: {
  sender: Schemas["UnknownSenderView"];
  onKnown: (vendor: number) => void;
}) {
  const [text, setText] = useState(sender.name);
  const found = useQuery({
    queryKey: ["vendors", text],
    queryFn: () => call(api.GET("/api/vendors", { params: { query: { text } } })),
  });
  return (
    <li className="border-brass mb-2 border-l-4 pl-3">
      <Field
        label={`Whose ${sender.documents === 1 ? "document is this" : `${sender.documents} documents are these`}: “${sender.name}”?`}
        small
      >
        <input
          value={text}
          placeholder="vendor by number or name"
          onChange={(event) => setText(event.target.value)}
        />
      </Field>
      <div className="mt-1 flex flex-wrap gap-2">
        {found.data?.slice(0, 4).map((vendor) => (
          <Button key={vendor.id} onClick={() => onKnown(vendor.id)}>
            {vendor.number} {vendor.name}
          </Button>
        ))}
        {found.data?.length === 0 && (
          <span className="text-faint text-[13px]">No vendor fits. Bring the vendor in first.</span>
        )}
      </div>
    </li>
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
