import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { ChoiceEntry, DayEntry, Entry, Form } from "../parts/Form";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";

type Account = Schemas["BankAccountView"];

/** What a file, or what was typed, came to. */
function came({ movements, cleared, again, stay }: Schemas["BankRead"]): string {
  const parts = [`${cleared} ${cleared === 1 ? "check" : "checks"} cleared`];
  if (again > 0) parts.push(`${again} told before`);
  parts.push(stay === 0 ? "nothing waits" : `${stay} to be answered`);
  return `${movements} ${movements === 1 ? "movement" : "movements"}: ${parts.join(", ")}.`;
}

/** Reads what the bank tells: a file, or what somebody types. */
export function ReadDeeds({
  account,
  agreeing,
  clerk,
}: {
  account: Account;
  agreeing: number;
  clerk: boolean;
}) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState<"file" | "hand">();
  const close = () => setAsking(undefined);
  const again = useDeed(
    () => call(api.POST("/api/bank-reports/look-again", { body: { account: account.id } })),
    { done: () => queries.invalidateQueries(), said: came },
  );
  if (!clerk) return <span className="text-faint text-note">A clerk reads files and answers.</span>;
  return (
    <>
      {agreeing > 0 && (
        <Button disabled={again.busy} onClick={() => void again.run()}>
          Clear the {agreeing} that {agreeing === 1 ? "agrees" : "agree"}
        </Button>
      )}
      <span className="ml-auto flex gap-2">
        <Button onClick={() => setAsking("hand")}>Type a paid check…</Button>
        <Button look="deed" onClick={() => setAsking("file")}>
          Read a file of the bank…
        </Button>
      </span>
      <Dialog open={asking === "file"} onClose={close} title={`A file of ${account.bankName}`}>
        <FileForm account={account} close={close} />
      </Dialog>
      <Dialog open={asking === "hand"} onClose={close} title={`A check ${account.bankName} paid`}>
        <HandForm account={account} close={close} />
      </Dialog>
    </>
  );
}

function FileForm({ account, close }: { account: Account; close: () => void }) {
  const queries = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const layouts = useQuery({
    queryKey: ["reading-layouts"],
    queryFn: () => call(api.GET("/api/bank-reports/layouts")),
  });
  const form = useKeptForm(
    `read bank file ${account.id}`,
    { layout: "", gap: "" },
    (typed) => {
      const body = new FormData();
      const chosen = file.current?.files?.[0];
      body.append("file", chosen ?? new Blob([]), chosen?.name ?? "");
      return call(
        api.POST("/api/bank-reports", {
          params: {
            query: {
              account: account.id,
              layout: typed.layout ? Number(typed.layout) : undefined,
              gap: typed.gap,
            },
          },
          // a form with a file; its parts are no JSON
          body: body as never,
          bodySerializer: (form) => form as unknown as FormData,
        }),
      );
    },
    {
      done: async () => {
        await queries.invalidateQueries();
        close();
      },
      said: came,
    },
  );
  const gap = form.elsewhere?.code === "statement-does-not-follow" || form.getValues("gap") !== "";
  return (
    <Form form={form} label="Read a file" deed="Read it" onClose={close}>
      <label className="flex flex-col gap-1">
        <span className="text-faint text-note">File</span>
        <input ref={file} type="file" name="file" required />
      </label>
      <ChoiceEntry
        name="layout"
        label="How it is written"
        choices={[
          { value: "", text: "camt.053, which says so itself" },
          ...(layouts.data ?? []).map((one) => ({ value: String(one.id), text: one.name })),
        ]}
      />
      {gap && <Entry name="gap" label="Why it is read all the same" rows={2} maxLength={300} />}
    </Form>
  );
}

function HandForm({ account, close }: { account: Account; close: () => void }) {
  const { today } = useSession();
  const queries = useQueryClient();
  const form = useKeptForm(
    `paid by hand ${account.id}`,
    { number: "", amount: "", day: today },
    (typed) => call(api.POST("/api/bank-reports/by-hand", { body: { account: account.id, ...typed } })),
    {
      done: async () => {
        await queries.invalidateQueries();
        close();
      },
      said: came,
    },
  );
  return (
    <Form form={form} label="A paid check" deed="Record it" onClose={close}>
      <Entry name="number" label="Number" look="font-mono w-40" maxLength={40} autoFocus />
      <Entry
        name="amount"
        label={`Amount the bank paid, ${account.currency}`}
        inputMode="decimal"
        look="w-40"
      />
      <DayEntry name="day" label="Day the bank paid it" />
    </Form>
  );
}
