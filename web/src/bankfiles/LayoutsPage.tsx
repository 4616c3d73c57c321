import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { Loaded } from "../parts/Loaded";
import { useKept } from "../parts/useKept";
import { useRest } from "../parts/useRest";
import { ChoiceWord } from "../parts/Word";
import { FilePreview } from "./FilePreview";

type Version = Schemas["BankLayoutVersion"];
type Account = Schemas["BankAccountView"];

/** The layouts of bank files: each as text, tried on what waits while it is changed, kept as a version. */
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

function Editor({
  version,
  given,
  account,
  sentence,
  onKept,
}: {
  version: Version;
  given: string;
  account: Account;
  sentence: React.ReactNode;
  onKept: (id: number) => void;
}) {
  const { roles } = useSession();
  const queries = useQueryClient();
  const [text, keep, forget] = useKept<string>(`bank layout ${version.id}`, given);
  const [asking, setAsking] = useState(false);
  const rested = useRest(text);
  const tried = useQuery({
    queryKey: ["bank-layout-tried", account.id, rested],
    queryFn: () => call(api.POST("/api/bank-layouts/try", { body: { account: account.id, text: rested } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const changed = text !== given;
  const may = roles.includes("ADMINISTRATOR");
  const wrong = tried.data?.wrong ?? [];
  return (
    <Station
      title="Layouts of bank files"
      sentence={sentence}
      answer={
        <>
          <span>{version.usedBy ? `files of ${version.usedBy} are made in it` : "no account uses it"}</span>
          {tried.data?.fileName && (
            <span>
              the next file is called like <b className="font-mono">{tried.data.fileName}</b>
            </span>
          )}
          <a
            className="go ml-auto"
            download={`${version.name}.json`}
            href={`data:application/json;charset=utf-8,${encodeURIComponent(text)}`}
          >
            As a file
          </a>
        </>
      }
      list={
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
          <section
            aria-label="What it makes of what waits"
            className="flex min-h-0 flex-col gap-2 overflow-auto"
          >
            <h2 className="text-faint text-note font-semibold">What it makes of what waits</h2>
            {tried.error && (
              <p role="alert" className="text-rust">
                {tried.error.message}
              </p>
            )}
            {wrong.map((one, i) => (
              <p key={i} role="alert" className="text-rust">
                {one}
              </p>
            ))}
            {!tried.error && tried.data?.preview && <FilePreview preview={tried.data.preview} />}
          </section>
        </div>
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
              <span className="text-faint text-note">
                Another name in it makes another layout. An account is given a layout on its own page.
              </span>
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
              otherwise.
            </p>
          </DeedDialog>
        </>
      }
    />
  );
}
