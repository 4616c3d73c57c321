import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { clock, shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Grid, type Column } from "../parts/Grid";
import { ChoiceWord } from "../parts/Word";

type Event = Schemas["EventView"];
type File = Schemas["FileView"];

const COLUMNS: Column<Event>[] = [
  { title: "Number", width: "84px", cell: (e) => <span className="font-mono">{e.number}</span> },
  {
    title: "Tells of",
    width: "90px",
    cell: (e) => (
      <span className={e.kind === "VOID" ? "text-brass" : ""}>{e.kind === "VOID" ? "void" : "issue"}</span>
    ),
  },
  { title: "Payee", width: "minmax(150px,2fr)", cell: (e) => e.payee },
  { title: "Dated", width: "100px", cell: (e) => shortDate(e.date) },
  { title: "Amount", width: "110px", right: true, cell: (e) => e.amount.text },
];

/** What the bank has not heard yet, the file that tells it, and the files before. */
export function BankStation() {
  const accounts = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
  });
  return (
    <Loaded query={accounts}>
      {(data) => {
        const told = data.filter((account) => account.positivePay);
        return told.length === 0 ? (
          <p className="text-faint p-8">No account is set up for positive pay.</p>
        ) : (
          <Bank accounts={told} />
        );
      }}
    </Loaded>
  );
}

/** The files of an account, the newest first. */
function useFiles(account: number) {
  return useQuery({
    queryKey: ["bank-files", account],
    queryFn: () => call(api.GET("/api/bank-files", { params: { query: { account } } })),
  });
}

function Bank({ accounts }: { accounts: Schemas["BankAccountView"][] }) {
  const session = useSession();
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const [making, setMaking] = useState(false);
  const account = accounts.find((a) => String(a.id) === values.account) ?? accounts[0]!;
  const preview = useQuery({
    queryKey: ["bank-preview", account.id],
    queryFn: () => call(api.GET("/api/bank-files/preview", { params: { query: { account: account.id } } })),
  });
  const files = useFiles(account.id);
  const open = files.data?.find((file) => file.state === "MADE");
  // a file that was made is not yet one the bank has read
  const nothing = open
    ? `Nothing waits for a file. Of file ${open.serial} it is not known yet whether the bank took it: say beside the list what it answered.`
    : `Nothing waits for a file${files.data ? ", and every file is answered" : ""}. Posted checks and voids appear here.`;
  const cursor = values.at;
  const data = preview.data;
  const what = data ? counted(data) : "";
  return (
    <Station
      title="Bank"
      sentence={
        <>
          What the bank has not heard of{" "}
          <ChoiceWord
            name="Bank account"
            text={account.name}
            value={String(account.id)}
            choices={accounts.map((a) => ({ value: String(a.id), text: a.name, detail: a.bankName }))}
            onChange={(value) => change({ account: value, at: undefined })}
          />{" "}
          yet.
        </>
      }
      answer={
        data && (
          <>
            <Figure value={data.issues}>{data.issues === 1 ? "issue" : "issues"} wait, together</Figure>
            <Figure value={`${data.issued.text} ${data.issued.currency}`} />
            {data.voids > 0 && (
              <>
                <Figure value={data.voids}>{data.voids === 1 ? "void" : "voids"}, together</Figure>
                <Figure value={`${data.voided.text} ${data.voided.currency}`} />
              </>
            )}
            <span>layout {data.layout}</span>
            {data.heldBack > 0 && (
              <span className="text-brass">
                {data.heldBack} {data.heldBack === 1 ? "void waits" : "voids wait"} until the bank took the
                issue
              </span>
            )}
          </>
        )
      }
      list={
        <Loaded query={preview}>
          {(seen) => (
            <Grid
              label="Waiting bank events"
              items={seen.events.map((row) => ({ key: String(row.event), row }))}
              columns={COLUMNS}
              cursor={cursor}
              onCursor={(key) => change({ at: key })}
              empty={nothing}
            />
          )}
        </Loaded>
      }
      bar={
        <>
          <span className="text-faint text-[13px]">
            Waiting events decide what goes in; no date is typed.
          </span>
          <Button
            look="deed"
            className="ml-auto"
            disabled={!data || data.events.length === 0 || !session.roles.includes("CLERK")}
            onClick={() => setMaking(true)}
          >
            Make the file of {what}…
          </Button>
          {data && (
            <DeedDialog
              open={making}
              wide
              onClose={() => setMaking(false)}
              title={`A file of ${what} for ${account.bankName}`}
              deed="Make the file"
              run={async () => {
                await call(api.POST("/api/bank-files", { body: { account: account.id } }));
                await queries.invalidateQueries();
                toast("The file is made. Download it, give it to the bank, then say what the bank answered.");
              }}
            >
              <Preview preview={data} />
            </DeedDialog>
          )}
        </>
      }
      slip={<Files account={account.id} />}
    />
  );
}

/** Issues and voids beside each other, never added. */
function counted({ issues, voids }: { issues: number; voids: number }): string {
  const issued = `${issues} ${issues === 1 ? "issue" : "issues"}`;
  return voids === 0 ? issued : `${issued} and ${voids} ${voids === 1 ? "void" : "voids"}`;
}

/** The records with a ruler; columns of the detail record are named below. */
function Preview({ preview }: { preview: Schemas["PreviewView"] }) {
  const width = Math.max(0, ...preview.records.map((r) => r.length));
  const ruler = Array.from({ length: width }, (_, i) =>
    (i + 1) % 10 === 0 ? String(((i + 1) / 10) % 10) : "·",
  ).join("");
  return (
    <>
      {preview.findings.map((finding, i) => (
        <p key={i} role="alert" className="text-rust">
          Row {finding.row}, {finding.field}: {finding.sentence}
        </p>
      ))}
      <pre
        tabIndex={0}
        aria-label="The file"
        className="border-hair bg-paper max-h-56 overflow-auto border p-2 font-mono text-[13px]"
      >
        <span className="text-faint">{ruler}</span>
        {"\n"}
        {preview.records.join("\n")}
      </pre>
      <p className="text-faint mt-2 text-[13px]">
        Detail columns: {preview.columns.map((c) => `${c.name} ${c.from}–${c.to}`).join(", ")}. The serial
        number is given when the file is made; the account number is masked here.
      </p>
    </>
  );
}

function Files({ account }: { account: number }) {
  const session = useSession();
  const queries = useQueryClient();
  const [refusing, setRefusing] = useState<File>();
  const [accepting, setAccepting] = useState<File>();
  const files = useFiles(account);
  const clerk = session.roles.includes("CLERK");
  const states: Record<string, string> = {
    MADE: "not answered yet",
    ACCEPTED: "accepted",
    REFUSED: "refused",
  };
  return (
    <div className="flex flex-col gap-3">
      <h2 className="font-semibold">Files made</h2>
      {files.data?.length === 0 && <p className="text-faint">No file yet.</p>}
      <ul>
        {files.data?.slice(0, 30).map((file) => (
          <li key={file.id} className="border-hair border-t py-2">
            <div className="flex justify-between">
              <b>File {file.serial}</b>
              <span
                className={
                  file.state === "REFUSED"
                    ? "text-rust"
                    : file.state === "MADE"
                      ? "text-brass"
                      : "text-greentext"
                }
              >
                {states[file.state]}
              </span>
            </div>
            <div className="flex justify-between">
              <span>
                {counted(file)}
                {file.follows ? `, after file ${file.follows} was refused` : ""}
              </span>
              <span>
                {file.issued.text}
                {file.voids > 0 && `, voids ${file.voided.text}`}
              </span>
            </div>
            <div className="text-faint text-[13px]">
              {file.madeBy}, {clock(file.madeAt)}
              {file.note && `: ${file.note}`}
            </div>
            {clerk && (
              <div className="mt-1 flex flex-wrap gap-2">
                <a
                  className="text-harbour inline-flex min-h-6 items-center underline"
                  href={`/api/bank-files/${file.id}/content`}
                  download
                >
                  Download
                </a>
                {file.state === "MADE" && (
                  <>
                    <button className="text-harbour min-h-6 underline" onClick={() => setAccepting(file)}>
                      The bank took it…
                    </button>
                    <button className="text-rust min-h-6 underline" onClick={() => setRefusing(file)}>
                      The bank refused it…
                    </button>
                  </>
                )}
              </div>
            )}
          </li>
        ))}
      </ul>
      <DeedDialog
        open={accepting !== undefined}
        onClose={() => setAccepting(undefined)}
        title={`The bank took file ${accepting?.serial}`}
        deed="Record that the bank took it"
        run={async () => {
          await call(
            api.POST("/api/bank-files/{id}/accepted", {
              params: { path: { id: accepting!.id } },
              body: { note: "" },
            }),
          );
          await queries.invalidateQueries();
        }}
      />
      <DeedDialog
        open={refusing !== undefined}
        onClose={() => setRefusing(undefined)}
        title={`The bank refused file ${refusing?.serial}`}
        deed="Record the refusal"
        grave
        reason="What the bank found wrong"
        run={async (note) => {
          await call(
            api.POST("/api/bank-files/{id}/refused", {
              params: { path: { id: refusing!.id } },
              body: { note },
            }),
          );
          await queries.invalidateQueries();
        }}
      >
        <p>Its events wait again and go into a new file, which is linked to this one.</p>
      </DeedDialog>
    </div>
  );
}
