import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call } from "../api/client";
import { shortDate } from "../parts/dates";
import { ChoiceWord, DateWord, Word } from "../parts/Word";
import type { Account, Criteria, Group } from "./criteria";

const METHODS: Record<string, string> = { CHECK: "check", CREDIT_TRANSFER: "credit transfer" };

/** The criteria as a sentence whose words are the controls. */
export function DueSentence({
  accounts,
  criteria,
  group,
  today,
  change,
}: {
  accounts: Account[];
  criteria: Criteria;
  group: Group;
  today: string;
  change: (next: Record<string, string | undefined>) => void;
}) {
  const account = accounts.find((a) => a.id === criteria.account) ?? accounts[0]!;
  // marks by hand belong to the list they were made in
  const afresh = { out: undefined, add: undefined, at: undefined };
  return (
    <>
      Pay from{" "}
      <ChoiceWord
        name="Bank account"
        text={account.name}
        value={String(account.id)}
        choices={accounts.map((a) => ({
          value: String(a.id),
          text: a.name,
          detail: `${a.bankName}, ${a.currency}`,
        }))}
        onChange={(value) => change({ ...afresh, account: value })}
      />{" "}
      on{" "}
      <DateWord
        name="Check date"
        text={shortDate(criteria.checkDate)}
        value={criteria.checkDate}
        min={today}
        onChange={(value) => change({ check: value })}
      />{" "}
      what is due by{" "}
      <DateWord
        name="Due by"
        text={shortDate(criteria.dueBy)}
        value={criteria.dueBy}
        onChange={(value) => change({ due: value })}
      />{" "}
      or loses its discount before{" "}
      <DateWord
        name="Next run"
        text={criteria.nextRun ? shortDate(criteria.nextRun) : "no day"}
        value={criteria.nextRun}
        none="Leave discounts out of it"
        onChange={(value) => change({ next: value ?? "none" })}
      />
      , to <VendorWord vendor={criteria.vendor} onChange={(value) => change({ ...afresh, vendor: value })} />,
      by{" "}
      <ChoiceWord
        name="Method"
        text={METHODS[account.method] ?? account.method}
        value={account.method}
        choices={[...new Set(accounts.map((a) => a.method))].map((m) => ({
          value: m,
          text: METHODS[m] ?? m,
        }))}
        onChange={(value) =>
          change({ ...afresh, account: String(accounts.find((a) => a.method === value)?.id ?? account.id) })
        }
      />
      , listed by{" "}
      <ChoiceWord
        name="Listed by"
        text={group === "DAY" ? "due day" : "vendor"}
        value={group}
        choices={[
          { value: "DAY", text: "due day" },
          { value: "VENDOR", text: "vendor" },
        ]}
        onChange={(value) => change({ group: value === "VENDOR" ? "vendor" : undefined })}
      />
      .
    </>
  );
}

function VendorWord({
  vendor,
  onChange,
}: {
  vendor: number | undefined;
  onChange: (value: string | undefined) => void;
}) {
  const [text, setText] = useState("");
  const found = useQuery({
    queryKey: ["vendors", text],
    queryFn: () => call(api.GET("/api/vendors", { params: { query: { text } } })),
  });
  const all = useQuery({
    queryKey: ["vendors", ""],
    queryFn: () => call(api.GET("/api/vendors", { params: { query: { text: "" } } })),
  });
  const name = [...(found.data ?? []), ...(all.data ?? [])].find((v) => v.id === vendor)?.name;
  return (
    <Word name="Vendor" text={vendor === undefined ? "all vendors" : (name ?? `vendor ${vendor}`)}>
      {(close) => (
        <div className="flex w-72 flex-col gap-1">
          <input
            aria-label="Vendor name or number"
            placeholder="Name or number"
            value={text}
            autoFocus
            onChange={(event) => setText(event.target.value)}
          />
          <ul>
            {[{ id: undefined, name: "all vendors", number: "" }, ...(found.data ?? [])].map((choice) => (
              <li key={choice.id ?? "all"}>
                <button
                  type="button"
                  className="hover:bg-cursor flex min-h-8 w-full items-center justify-between gap-2 px-2 text-left"
                  onClick={() => {
                    onChange(choice.id === undefined ? undefined : String(choice.id));
                    close();
                  }}
                >
                  <span className="truncate">{choice.name}</span>
                  <span className="text-faint font-mono text-[13px]">{choice.number}</span>
                </button>
              </li>
            ))}
          </ul>
        </div>
      )}
    </Word>
  );
}
