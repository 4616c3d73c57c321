import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { ChoiceEntry, Entry, Form } from "../parts/Form";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";
import { useAgain, type Account } from "./BankAccountPage";

type Setting = Schemas["ChannelSetting"];
type Wanted = Schemas["WantedChannel"];

const KINDS: Record<string, string> = {
  SFTP: "SFTP",
  FOLDER: "a folder of this server, which another program carries on",
  PRACTICE: "the bank to practise on",
};
const RULES = 8;
const STANDARD = "camt.053";

/** How the files of an account travel to its bank and from it. */
export function Channel({ account }: { account: Account }) {
  const [asking, setAsking] = useState(false);
  const setting = useQuery({
    queryKey: ["bank-channel", account.id],
    queryFn: () => call(api.GET("/api/bank-accounts/{id}/channel", { params: { path: { id: account.id } } })),
  });
  const channel = setting.data?.channel;
  return (
    <section aria-label="How files travel">
      <h2 className="mb-1 text-base font-bold">How files travel</h2>
      {setting.data && (
        <p>
          {channel?.inUse ? (
            <>
              By <b>{KINDS[channel.kind]}</b>
              {channel.kind === "SFTP" && (
                <>
                  {" "}
                  to{" "}
                  <span className="font-mono break-all">
                    {channel.user}@{channel.host}:{channel.port}
                  </span>
                </>
              )}
              .
            </>
          ) : (
            <>People download them, bring them to the bank, and read what it gives them.</>
          )}
        </p>
      )}
      {account.maySet && !account.closedOn && setting.data && (
        <div className="mt-2">
          <Button onClick={() => setAsking(true)}>{channel ? "Change how…" : "Let them travel…"}</Button>
        </div>
      )}
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`How files of ${account.name} travel`}
        wide
      >
        {setting.data && (
          <Change
            key={channel?.version ?? 0}
            account={account}
            setting={setting.data}
            onClose={() => setAsking(false)}
          />
        )}
      </Dialog>
    </section>
  );
}

function Change({ account, setting, onClose }: { account: Account; setting: Setting; onClose: () => void }) {
  const again = useAgain();
  const { channel, choices } = setting;
  const given: Record<string, string> = {
    kind: channel?.kind ?? choices.kinds[0] ?? "SFTP",
    host: channel?.host ?? "",
    port: String(channel?.port || 22),
    user: channel?.user ?? "",
    secret: "",
    hostKey: channel?.hostKey ?? "",
    out: channel?.out ?? "",
    in: channel?.in ?? "",
    decisions: channel?.decisions ?? "",
    inUse: channel?.inUse === false ? "" : "yes",
  };
  for (let i = 0; i < RULES; i++) {
    const rule = channel?.rules[i];
    given[`pattern${i}`] = rule?.pattern ?? "";
    given[`layout${i}`] = rule?.layout ?? "";
  }
  const wanted = (typed: Record<string, string>): Wanted => ({
    kind: typed.kind as Wanted["kind"],
    host: typed.host ?? "",
    port: Number(typed.port) || 0,
    user: typed.user ?? "",
    secret: typed.secret || undefined,
    hostKey: typed.hostKey ?? "",
    out: typed.out ?? "",
    in: typed.in ?? "",
    decisions: typed.decisions ?? "",
    rules: Array.from({ length: RULES }, (_, i) => ({
      pattern: typed[`pattern${i}`] ?? "",
      layout: typed[`layout${i}`] ?? "",
    })).filter((rule) => rule.pattern.trim() !== ""),
    inUse: typed.inUse === "yes",
    version: channel?.version ?? 0,
  });
  const path = { params: { path: { id: account.id } } };
  const form = useKeptForm(
    `bank channel ${account.id}`,
    given,
    (typed) => call(api.POST("/api/bank-accounts/{id}/channel", { ...path, body: wanted(typed) })),
    {
      secret: ["secret"],
      done: async () => {
        await again();
        onClose();
      },
    },
  );
  const [tried, setTried] = useState<Schemas["ChannelTried"]>();
  const attempt = useDeed(
    () =>
      call(api.POST("/api/bank-accounts/{id}/channel/attempt", { ...path, body: wanted(form.getValues()) })),
    { done: setTried },
  );
  const far = form.watch("kind") === "SFTP";
  const pin = tried && !tried.reached && tried.hostKey && tried.hostKey !== form.watch("hostKey");
  return (
    <Form form={form} label="How files travel" deed="Keep it" onClose={onClose}>
      <div className="grid grid-cols-2 gap-4 max-[640px]:grid-cols-1">
        <ChoiceEntry
          name="kind"
          label="By"
          choices={choices.kinds.map((kind) => ({ value: kind, text: KINDS[kind] ?? kind }))}
        />
        <ChoiceEntry
          name="inUse"
          label="In use"
          choices={[
            { value: "yes", text: "files travel by it" },
            { value: "", text: "not now: people carry them" },
          ]}
        />
        {far && (
          <>
            <Entry name="host" label="The bank’s host" look="font-mono" maxLength={200} />
            <Entry name="port" label="Port" inputMode="numeric" look="w-24" maxLength={5} />
            <Entry name="user" label="User the bank gave us" look="font-mono" maxLength={100} />
            <Entry
              name="hostKey"
              label="The host’s key, as the bank tells it"
              look="font-mono"
              maxLength={60}
              placeholder="SHA256:…"
            />
            <Entry
              name="secret"
              className="col-span-full"
              label={
                channel?.hasSecret
                  ? "Another password or private key; empty to keep the one there is"
                  : "Password, or a private key without a passphrase"
              }
              rows={2}
              look="font-mono"
            />
          </>
        )}
        <Entry name="out" label="Folder where we lay files" look="font-mono" maxLength={200} />
        <Entry name="in" label="Folder where the bank lays its own" look="font-mono" maxLength={200} />
        <ChoiceEntry
          name="decisions"
          label="It is told what is paid and what returned"
          choices={[
            { value: "", text: "by people" },
            ...choices.decisions.map((one) => ({ value: one, text: one })),
          ]}
        />
      </div>
      <fieldset className="flex flex-col gap-1">
        <legend className="text-faint text-note">
          What the bank’s files are, by their names; the first that fits
        </legend>
        {Array.from({ length: RULES }, (_, i) => (
          <div key={i} className="grid grid-cols-2 gap-4">
            <Entry
              name={`pattern${i}`}
              label={<span className="sr-only">Names, {i + 1}</span>}
              look="font-mono"
              placeholder={i === 0 ? "answer-*" : ""}
              maxLength={80}
            />
            <ChoiceEntry
              name={`layout${i}`}
              label={<span className="sr-only">What they are, {i + 1}</span>}
              choices={[
                { value: "", text: STANDARD },
                ...choices.layouts.map((one) => ({ value: one, text: one })),
              ]}
            />
          </div>
        ))}
      </fieldset>
      <div className="flex flex-wrap items-center gap-3">
        <Button disabled={attempt.busy} onClick={() => void attempt.run()}>
          Try it
        </Button>
        {tried && (
          <span className={`min-w-0 flex-1 ${tried.reached ? "text-greentext" : "text-rust"}`}>
            {tried.sentence}
          </span>
        )}
        {pin && (
          <Button
            onClick={() => {
              form.setValue("hostKey", tried.hostKey);
              form.keep();
            }}
          >
            Pin this key
          </Button>
        )}
      </div>
      <Refusal deed={attempt} />
    </Form>
  );
}
