import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call } from "../api/client";
import { shortDate } from "../parts/dates";
import { Word } from "../parts/Word";
import type { Account, Change, Question } from "./criteria";
import type { DueView } from "./useDueList";

/** Words that move are shown with the day they mean now. */
export function said(text: string | null | undefined, day: string | null | undefined): string {
  if (!text) return "no day";
  if (text === "usual") return day ? shortDate(day) : "…";
  if (/^\d{4}-/.test(text)) return shortDate(text);
  return day ? `${text} (${shortDate(day)})` : text;
}

/** What stands in the field of a day: what is usual stands there as the day it means. */
export function given(text: string | null | undefined, day: string | null | undefined): string {
  return (text === "usual" ? day : text) ?? "";
}

/** The ways of the account first, then those of the others: choosing one of them pays from there. */
export function waysFrom(account: Account, accounts: Account[]) {
  const others = accounts.filter((a) => a.id !== account.id);
  return [account, ...others].flatMap((from) => from.ways.map((way) => ({ from, way })));
}

export function LimitWord({
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
            <span className="text-faint text-note">No more than, in {currency}</span>
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
              className="go min-h-8 px-2 text-left"
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

export function VendorsWord({
  vendors,
  onChange,
}: {
  vendors: number[];
  onChange: (next: number[]) => void;
}) {
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
            className="go min-h-8 px-2 text-left"
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
                  <span className="text-faint font-mono text-note">{choice.number}</span>
                </label>
              </li>
            ))}
          </ul>
        </div>
      )}
    </Word>
  );
}
