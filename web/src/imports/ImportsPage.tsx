import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { api, call } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { clock } from "../parts/dates";
import { Download } from "../parts/Download";
import { useDeed } from "../parts/useDeed";
import { Grid, type Column } from "../parts/Grid";
import { ChoiceWord } from "../parts/Word";
import { count, type Kind, type Import, KINDS } from "./kinds";
import { About } from "./AboutImport";

export const COLUMNS: Column<Import>[] = [
  { key: "file", title: "File", width: "minmax(100px,1.4fr)", cell: (i) => i.fileName },
  { key: "it", title: "It", width: "minmax(130px,1fr)", cell: (i) => i.stateWords },
  { key: "sent", title: "Sent", width: "132px", value: (i) => i.at, cell: (i) => clock(i.at) },
  { key: "rows", title: "Rows", width: "62px", right: true, cell: (i) => count(i.rows) },
  { key: "good", title: "Good", width: "62px", right: true, cell: (i) => count(i.good) },
  {
    key: "refused",
    title: "Refused",
    width: "58px",
    right: true,
    cell: (i) => <span className={i.refused > 0 ? "text-rust" : ""}>{count(i.refused)}</span>,
  },
  {
    key: "here-already",
    title: "Here already",
    width: "82px",
    right: true,
    cell: (i) => count(i.duplicates),
  },
  { key: "brought-in", title: "Brought in", width: "70px", right: true, cell: (i) => count(i.broughtIn) },
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
              list="imports"
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
          <span className="text-faint text-note">The work goes on when this page is closed.</span>
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
    <table className="w-full text-note">
      <caption className="mb-1 text-left text-body font-semibold">Columns, found by their names</caption>
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
