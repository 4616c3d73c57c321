import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { Loaded } from "../parts/Loaded";
import { useDeed } from "../parts/useDeed";
import { useKept } from "../parts/useKept";
import { useRest } from "../parts/useRest";
import { ChoiceWord } from "../parts/Word";
import { Beside, Sample, useTried } from "./Compared";
import { FieldForm } from "./FieldForm";
import { FilePreview } from "./FilePreview";
import { LayoutTable } from "./LayoutTable";
import { parsed, written, type LayoutText, type Place } from "./layoutText";
import { FileForm, RecordForm } from "./PartForms";

type Version = Schemas["BankLayoutVersion"];
type Account = Schemas["BankAccountView"];

/** The layouts of bank files: field by field or as text, tried on what waits while it is changed, kept as a version. */
export function LayoutsPage() {
  const layouts = useQuery({ queryKey: ["bank-layouts"], queryFn: () => call(api.GET("/api/bank-layouts")) });
  const accounts = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
  });
  return (
    <Loaded query={layouts}>
      {(versions) => (
        <Loaded query={accounts}>
          {(known) =>
            known.length === 0 ? (
              <p className="p-5">Open a bank account first: a layout is tried on what waits of one.</p>
            ) : (
              <Chosen versions={versions} accounts={known} />
            )
          }
        </Loaded>
      )}
    </Loaded>
  );
}

const nameOf = (one: Version) => `${one.name}, version ${one.version}`;

function Chosen({ versions, accounts }: { versions: Version[]; accounts: Account[] }) {
  const [values, change] = useAddress();
  const used = versions.find((one) => one.usedBy) ?? versions[0]!;
  const version = versions.find((one) => String(one.id) === values.layout) ?? used;
  const account = accounts.find((one) => String(one.id) === values.account) ?? accounts[0]!;
  const text = useQuery({
    queryKey: ["bank-layout", version.id],
    queryFn: () => call(api.GET("/api/bank-layouts/{id}", { params: { path: { id: version.id } } })),
  });
  return (
    <Loaded query={text}>
      {(given) => (
        <Editor
          key={version.id}
          version={version}
          versions={versions}
          given={given.text}
          account={account}
          sentence={
            <>
              The layout{" "}
              <ChoiceWord
                name="Layout"
                text={nameOf(version)}
                value={String(version.id)}
                choices={versions.map((one) => ({
                  value: String(one.id),
                  text: nameOf(one),
                  detail: one.usedBy ? `files of ${one.usedBy}` : one.newest ? "" : "an earlier one",
                }))}
                onChange={(layout) => change({ layout })}
              />
              , tried on what waits of{" "}
              <ChoiceWord
                name="Account"
                text={account.name}
                value={String(account.id)}
                choices={accounts.map((one) => ({ value: String(one.id), text: one.name }))}
                onChange={(next) => change({ account: next })}
              />
              .
            </>
          }
          onKept={(id) => change({ layout: String(id) })}
        />
      )}
    </Loaded>
  );
}

const LONGEST = 200_000;

type View = "fields" | "text" | "sample" | "beside";

const VIEWS: { value: View; text: string; detail: string }[] = [
  { value: "fields", text: "field by field", detail: "" },
  { value: "text", text: "as text", detail: "JSON, out and in" },
  { value: "sample", text: "under a sample of the bank", detail: "where they differ" },
  { value: "beside", text: "beside another version", detail: "on the same events" },
];

function Editor({
  version,
  versions,
  given,
  account,
  sentence,
  onKept,
}: {
  version: Version;
  versions: Version[];
  given: string;
  account: Account;
  sentence: React.ReactNode;
  onKept: (id: number) => void;
}) {
  const { roles } = useSession();
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const [text, keep, forget] = useKept<string>(`bank layout ${version.id}`, given);
  const [asking, setAsking] = useState(false);
  const [at, setAt] = useState<Place>({ record: -1, field: -1 });
  const file = useRef<HTMLInputElement>(null);
  const rested = useRest(text);
  const tried = useTried(account.id, rested);
  const layout = parsed(text);
  const view: View = layout ? ((values.view as View | undefined) ?? "fields") : "text";
  const changed = text !== given;
  const may = roles.includes("ADMINISTRATOR");
  const wrong = tried.data?.wrong ?? [];
  const preview = tried.data?.preview;
  const edit = (next: LayoutText) => keep(written(next));
  const test = useDeed(
    async () => {
      const content = (await call(
        api.POST("/api/bank-layouts/test-file", {
          body: { account: account.id, text },
          parseAs: "blob",
        }),
      )) as unknown as Blob;
      handOver(content, `TEST-${tried.data?.fileName ?? "file"}`);
    },
    { said: () => "The test file is made. Nothing of it counts." },
  );
  const chosen = layout?.records[at.record]?.fields[at.field];
  return (
    <Station
      title="Layouts of bank files"
      sentence={
        <>
          {sentence} It is shown{" "}
          <ChoiceWord
            name="Shown"
            text={VIEWS.find((one) => one.value === view)!.text}
            value={view}
            choices={VIEWS}
            onChange={(next) => change({ view: next })}
          />
          .
        </>
      }
      answer={
        <>
          <span>{version.usedBy ? `files of ${version.usedBy} are made in it` : "no account uses it"}</span>
          {tried.data?.fileName && (
            <span>
              the next file is called like <b className="font-mono">{tried.data.fileName}</b>
            </span>
          )}
          <span className="ml-auto flex gap-4">
            <a
              className="go"
              download={`${layout?.name ?? version.name}.json`}
              href={`data:application/json;charset=utf-8,${encodeURIComponent(text)}`}
            >
              As a file
            </a>
            {may && (
              <>
                <button className="go" onClick={() => file.current?.click()}>
                  Bring one in
                </button>
                <input
                  ref={file}
                  type="file"
                  accept=".json,application/json"
                  hidden
                  aria-label="A layout as a file"
                  onChange={async (event) => {
                    const brought = event.target.files?.[0];
                    if (brought && brought.size <= LONGEST) keep(await brought.text());
                    else if (brought) toast("This is no layout: it is too long to be one.");
                    event.target.value = "";
                  }}
                />
                {layout && (
                  <button className="go" onClick={() => edit({ ...layout, name: `${layout.name} (copy)` })}>
                    Copy
                  </button>
                )}
              </>
            )}
          </span>
        </>
      }
      list={
        view === "text" || !layout ? (
          <AsText text={text} may={may} keep={keep} tried={tried} />
        ) : view === "sample" ? (
          <Sample text={rested} account={account.id} layout={layout} />
        ) : view === "beside" ? (
          <Beside version={version} versions={versions} account={account.id} mine={tried.data} />
        ) : (
          <div className="flex min-h-0 flex-1 flex-col">
            <div className="min-h-0 flex-1 overflow-auto" tabIndex={0} data-list>
              <LayoutTable layout={layout} preview={preview} wrong={wrong} at={at} onAt={setAt} />
            </div>
            <section
              aria-label="What it makes of what waits"
              className="border-ink flex max-h-72 flex-col gap-1 overflow-auto border-t px-4 py-2"
            >
              <Wrong tried={tried} />
              {!tried.error && preview && (
                <FilePreview
                  preview={preview}
                  meant={at.field >= 0 ? at : undefined}
                  onMeant={(record, field) => setAt({ record, field })}
                />
              )}
              {!tried.error && tried.data && !preview && wrong.length === 0 && (
                <p className="text-faint">A file of the bank: lay a sample of it over the layout.</p>
              )}
            </section>
          </div>
        )
      }
      bar={
        <>
          {may ? (
            <>
              <Button
                look="deed"
                disabled={!changed || Boolean(tried.error) || wrong.length > 0}
                onClick={() => setAsking(true)}
              >
                Keep as the next version…
              </Button>
              <Button disabled={!changed} onClick={forget}>
                As it was
              </Button>
              {preview && (
                <Button disabled={test.busy} onClick={() => void test.run()}>
                  Make a test file
                </Button>
              )}
              <span className="text-faint text-note">Another name in it makes another layout.</span>
            </>
          ) : (
            <span className="text-faint text-note">An administrator changes layouts.</span>
          )}
          <DeedDialog
            open={asking}
            onClose={() => setAsking(false)}
            title="Keep this layout"
            deed="Keep it"
            run={async () => {
              const kept = await call(api.POST("/api/bank-layouts", { body: { text } }));
              forget();
              await queries.invalidateQueries({ queryKey: ["bank-layouts"] });
              await queries.invalidateQueries({ queryKey: ["bank-file-layouts"] });
              toast(`Kept as ${nameOf(kept)}.`);
              onKept(kept.id);
            }}
          >
            <p>
              It is kept as the next version of the layout of its name. Files made before stay as they are; an
              account whose files are made in an earlier version goes on with that until its page says
              otherwise, from which day on.
            </p>
          </DeedDialog>
        </>
      }
      slip={
        view !== "fields" || !layout ? undefined : chosen ? (
          <FieldForm
            key={`${at.record} ${at.field}`}
            layout={layout}
            onChange={edit}
            readOnly={!may}
            at={at}
            onAt={setAt}
            account={account.id}
          />
        ) : layout.records[at.record] ? (
          <div className="flex flex-col gap-4">
            <RecordForm layout={layout} onChange={edit} readOnly={!may} at={at} onAt={setAt} />
            <Button onClick={() => setAt({ record: -1, field: -1 })}>The file as a whole</Button>
          </div>
        ) : (
          <FileForm layout={layout} onChange={edit} readOnly={!may} />
        )
      }
    />
  );
}

/** Gives the browser's user a file. */
function handOver(content: Blob, name: string) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}

function AsText({
  text,
  may,
  keep,
  tried,
}: {
  text: string;
  may: boolean;
  keep: (text: string) => void;
  tried: ReturnType<typeof useTried>;
}) {
  return (
    <div className="grid min-h-0 flex-1 grid-cols-2 gap-4 overflow-hidden p-4">
      <label className="flex min-h-0 flex-col gap-1">
        <span className="text-faint text-note font-semibold">The layout</span>
        <textarea
          className="border-faint bg-sheet min-h-0 flex-1 resize-none border p-2 font-mono text-note"
          spellCheck={false}
          value={text}
          readOnly={!may}
          maxLength={200000}
          onChange={(event) => keep(event.target.value)}
        />
      </label>
      <section aria-label="What it makes of what waits" className="flex min-h-0 flex-col gap-2 overflow-auto">
        <h2 className="text-faint text-note font-semibold">What it makes of what waits</h2>
        <Wrong tried={tried} />
        {!tried.error && tried.data?.preview && <FilePreview preview={tried.data.preview} />}
      </section>
    </div>
  );
}

function Wrong({ tried }: { tried: ReturnType<typeof useTried> }) {
  return (
    <>
      {tried.error && (
        <p role="alert" className="text-rust">
          {tried.error.message}
        </p>
      )}
      {!tried.error &&
        tried.data?.wrong.map((one, i) => (
          <p key={i} role="alert" className="text-rust">
            {one.sentence}
          </p>
        ))}
    </>
  );
}
