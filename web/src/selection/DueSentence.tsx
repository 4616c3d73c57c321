import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call } from "../api/client";
import { shortDate } from "../parts/dates";
import { ChoiceWord, DayWord, Word } from "../parts/Word";
import { KeptCriteria } from "./KeptCriteria";
import { MoreCriteria } from "./MoreCriteria";
import type { Account, Change, HowListed, ListedBy, Question, Showing } from "./criteria";
import type { DueView } from "./useDueList";

const SHOWN: Record<Showing, string> = {
  ALL: "all",
  TAKEN: "what is taken",
  LEFT_OUT: "what is left out",
};
const LISTED: Record<ListedBy, string> = {
  DAY: "due day",
  VENDOR: "vendor",
  GROUP: "vendor group",
  CASH: "order of cash",
};

/** Words that move are shown with the day they mean now. */
function said(text: string | null | undefined, day: string | null | undefined): string {
  if (!text) return "no day";
  if (text === "usual") return day ? shortDate(day) : "…";
  if (/^\d{4}-/.test(text)) return shortDate(text);
  return day ? `${text} (${shortDate(day)})` : text;
}

/** What stands in the field of a day: what is usual stands there as the day it means. */
function given(text: string | null | undefined, day: string | null | undefined): string {
  return (text === "usual" ? day : text) ?? "";
}

/** The ways of the account first, then those of the others: choosing one of them pays from there. */
function waysFrom(account: Account, accounts: Account[]) {
  const others = accounts.filter((a) => a.id !== account.id);
  return [account, ...others].flatMap((from) => from.ways.map((way) => ({ from, way })));
}

/** The criteria as a sentence whose words are the controls. */
export function DueSentence({
  accounts,
  question,
  view,
  how,
  change,
}: {
  accounts: Account[];
  question: Question;
  view: DueView | undefined;
  how: HowListed;
  change: Change;
}) {
  const account = accounts.find((a) => a.id === question.account) ?? accounts[0]!;
  const way = account.ways.find((w) => w.id === question.wayToPay) ?? account.ways[0];
  // marks by hand belong to the list they were made in
  const afresh = { out: undefined, in: undefined, at: undefined };
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
        onChange={(value) => change({ ...afresh, account: value, pay: undefined, check: undefined })}
      />{" "}
      on{" "}
      <DayWord
        name="Check date"
        text={said(question.checkDate, view?.checkDate)}
        value={given(question.checkDate, view?.checkDate)}
        onChange={(value) => change({ check: value })}
      />{" "}
      {/* asked for before the batch is made: what is open then is what can be paid */}
      (ledger{" "}
      <DayWord
        name="Ledger date"
        text={question.ledgerDate ? said(question.ledgerDate, view?.ledgerDate) : "the same day"}
        value={question.ledgerDate ?? ""}
        none="The check date"
        onChange={(value) => change({ ledger: value })}
      />
      ) what is due by{" "}
      <DayWord
        name="Due by"
        text={said(question.dueBy, view?.dueBy)}
        value={given(question.dueBy, view?.dueBy)}
        onChange={(value) => change({ due: value })}
      />{" "}
      or loses its discount before{" "}
      <DayWord
        name="Next run"
        text={said(question.nextRun, view?.nextRun)}
        value={given(question.nextRun, view?.nextRun)}
        none="Leave discounts out of it"
        onChange={(value) => change({ next: value ?? "none" })}
      />
      , to{" "}
      <VendorsWord
        vendors={question.vendors ?? []}
        onChange={(next) => change({ ...afresh, vendors: next.length ? next.join(".") : undefined })}
      />
      , by{" "}
      <ChoiceWord
        name="Way to pay"
        text={way?.words ?? "no way yet"}
        value={String(way?.id)}
        choices={waysFrom(account, accounts).map(({ from, way }) => ({
          value: String(way.id),
          text: way.words,
          detail: `${way.name} of ${from.name}`,
        }))}
        onChange={(value) => {
          const chosen = waysFrom(account, accounts).find(({ way }) => String(way.id) === value);
          if (chosen) change({ ...afresh, account: String(chosen.from.id), pay: value, check: undefined });
        }}
      />
      ,{" "}
      <ChoiceWord
        name="Credits"
        text={question.credits ? "less open credits" : "without credits"}
        value={question.credits ? "yes" : "no"}
        choices={[
          { value: "no", text: "without credits" },
          { value: "yes", text: "less open credits", detail: "oldest first, same vendor and address" },
        ]}
        onChange={(value) => change({ credits: value === "yes" ? "yes" : undefined })}
      />
      , up to <LimitWord question={question} view={view} currency={account.currency} change={change} />
      <MoreCriteria question={question} change={change} />; listing{" "}
      <ChoiceWord
        name="Listing"
        text={SHOWN[how.showing]}
        value={how.showing}
        choices={(Object.keys(SHOWN) as Showing[]).map((value) => ({ value, text: SHOWN[value] }))}
        onChange={(value) => change({ show: value === "ALL" ? undefined : value, at: undefined })}
      />{" "}
      by{" "}
      <ChoiceWord
        name="Listed by"
        text={LISTED[how.listedBy]}
        value={how.listedBy}
        choices={(Object.keys(LISTED) as ListedBy[]).map((value) => ({
          value,
          text: LISTED[value],
          detail: value === "CASH" ? "claims, with the cash line" : undefined,
        }))}
        onChange={(value) => change({ by: value })}
      />
      . <KeptCriteria question={question} change={change} />
    </>
  );
}

function LimitWord({
  question,
  view,
  currency,
  change,
}: {
  question: Question;
  view: DueView | undefined;
  currency: string;
  change: Change;
}) {
  const [typed, setTyped] = useState("");
  const limit = question.limit;
  const text = !limit ? "any amount" : limit === "available" ? "what is available" : (view?.limit ?? limit);
  const choose = (value: string | undefined) =>
    change({ limit: value, panel: value ? "cash" : undefined, by: undefined });
  return (
    <Word name="Cash limit" text={text}>
      {(close) => (
        <form
          className="flex w-64 flex-col gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            choose(typed.trim() || undefined);
            close();
          }}
        >
          <label className="flex flex-col gap-1">
            <span className="text-faint text-[13px]">No more than, in {currency}</span>
            <input
              inputMode="decimal"
              value={typed}
              placeholder={limit && limit !== "available" ? limit : "10,000.00"}
              autoFocus
              className="text-right"
              onChange={(event) => setTyped(event.target.value)}
            />
          </label>
          <button className="bg-harbour text-onharbour min-h-8 px-3 font-bold">Use this limit</button>
          {["available", undefined].map((value) => (
            <button
              key={value ?? "none"}
              type="button"
              className="text-harbour min-h-8 px-2 text-left underline"
              onClick={() => {
                choose(value);
                close();
              }}
            >
              {value ? "What is available" : "Any amount"}
            </button>
          ))}
        </form>
      )}
    </Word>
  );
}

function VendorsWord({ vendors, onChange }: { vendors: number[]; onChange: (next: number[]) => void }) {
  const [text, setText] = useState("");
  const found = useQuery({
    queryKey: ["vendors", text],
    queryFn: () => call(api.GET("/api/vendors", { params: { query: { text } } })),
  });
  const first = useQuery({
    queryKey: ["vendor", vendors[0]],
    enabled: vendors.length === 1,
    queryFn: () => call(api.GET("/api/vendors/{id}", { params: { path: { id: vendors[0]! } } })),
  });
  const words =
    vendors.length === 0
      ? "all vendors"
      : vendors.length === 1
        ? (first.data?.name ?? `vendor ${vendors[0]}`)
        : `${vendors.length} vendors`;
  return (
    <Word name="Vendors" text={words}>
      {(close) => (
        <div className="flex w-80 flex-col gap-1">
          <input
            aria-label="Vendor name or number"
            placeholder="Name or number"
            value={text}
            autoFocus
            onChange={(event) => setText(event.target.value)}
          />
          <button
            type="button"
            className="text-harbour min-h-8 px-2 text-left underline"
            onClick={() => {
              onChange([]);
              close();
            }}
          >
            all vendors
          </button>
          <ul>
            {found.data?.map((choice) => (
              <li key={choice.id}>
                <label className="hover:bg-cursor flex min-h-8 w-full items-center gap-2 px-2">
                  <input
                    type="checkbox"
                    className="min-h-0"
                    checked={vendors.includes(choice.id)}
                    onChange={(event) =>
                      onChange(
                        event.target.checked
                          ? [...vendors, choice.id]
                          : vendors.filter((id) => id !== choice.id),
                      )
                    }
                  />
                  <span className="flex-1 truncate">{choice.name}</span>
                  <span className="text-faint font-mono text-[13px]">{choice.number}</span>
                </label>
              </li>
            ))}
          </ul>
        </div>
      )}
    </Word>
  );
}
