import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { AccountWord } from "../bankfiles/AccountWord";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { clock, shortDate } from "../parts/dates";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { ChoiceWord } from "../parts/Word";
import { AnswerForm } from "./AnswerForm";
import { BankReports } from "./BankReports";
import { ReadDeeds } from "./ReadDeeds";

type Exception = Schemas["ExceptionView"];
type Kind = Exception["kind"];

const COLUMNS: Column<Exception>[] = [
  { key: "day", title: "Day", width: "92px", value: (e) => e.day, cell: (e) => shortDate(e.day) },
  {
    key: "number",
    title: "Check",
    width: "92px",
    cell: (e) => <span className="font-mono">{e.number}</span>,
  },
  {
    key: "why",
    title: "Why it waits",
    width: "minmax(130px,1.1fr)",
    words: (e) => e.kindWords,
    cell: (e) => <span className={e.kind === "AGREES" ? "text-greentext" : "text-brass"}>{e.kindWords}</span>,
  },
  {
    key: "what",
    title: "Payee or text",
    width: "minmax(160px,2fr)",
    words: (e) => e.payee || e.text,
    cell: (e) => e.payee || e.text,
  },
  {
    key: "decide",
    title: "Decide by",
    width: "92px",
    value: (e) => e.decideBy ?? "",
    cell: (e) =>
      e.decideBy && (
        <span className={e.late ? "text-rust" : ""}>{e.late ? "hour passed" : clock(e.decideBy)}</span>
      ),
  },
  {
    key: "out",
    title: "Out",
    width: "104px",
    right: true,
    words: (e) => (e.in ? "" : e.amount.text),
    cell: (e) => (e.in ? "" : e.amount.text),
  },
  {
    key: "in",
    title: "In",
    width: "104px",
    right: true,
    words: (e) => (e.in ? e.amount.text : ""),
    cell: (e) => (e.in ? e.amount.text : ""),
  },
];

/** What the bank moved and nobody has answered yet. */
export function ClearingPage() {
  const accounts = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
  });
  return (
    <Loaded query={accounts}>
      {(data) =>
        data.length === 0 ? (
          <p className="text-faint p-8">There is no bank account yet.</p>
        ) : (
          <Exceptions accounts={data} />
        )
      }
    </Loaded>
  );
}

function Exceptions({ accounts }: { accounts: Schemas["BankAccountView"][] }) {
  const session = useSession();
  const [values, change] = useAddress();
  const [selected, setSelected] = useState(new Set<string>());
  const account = accounts.find((a) => String(a.id) === values.account) ?? accounts[0]!;
  const kind = values.kind as Kind | undefined;
  const open = useQuery({
    queryKey: ["bank-exceptions", account.id, kind],
    queryFn: () =>
      call(api.GET("/api/bank-exceptions", { params: { query: { account: account.id, kind } } })),
    placeholderData: keepPreviousData,
  });
  const view = open.data;
  const shown = view?.shown ?? [];
  const at = shown.find((one) => String(one.id) === values.at);
  const chosen = shown.filter((one) => selected.has(String(one.id)));
  const meant = chosen.length ? chosen : at ? [at] : [];
  const agreeing = view?.kinds.find((one) => one.kind === "AGREES")?.count ?? 0;
  return (
    <Station
      title="What the bank paid"
      sentence={
        <>
          What{" "}
          <AccountWord
            account={account}
            accounts={accounts}
            onChange={(value) => {
              setSelected(new Set());
              change({ account: value, at: undefined, kind: undefined });
            }}
          />{" "}
          moved and nobody has answered:{" "}
          <ChoiceWord
            name="Why it waits"
            text={view?.kinds.find((one) => one.kind === kind)?.words ?? "all of it"}
            value={kind ?? ""}
            choices={[
              { value: "", text: "all of it", detail: view ? String(view.count) : "" },
              ...(view?.kinds ?? []).map((one) => ({
                value: one.kind as string,
                text: one.words,
                detail: String(one.count),
              })),
            ]}
            onChange={(value) => {
              setSelected(new Set());
              change({ kind: value || undefined, at: undefined });
            }}
          />
          .
        </>
      }
      answer={
        view && (
          <>
            <Figure value={view.count}>{view.count === 1 ? "waits" : "wait"} for an answer</Figure>
            {view.kinds.map((one) => (
              <Figure key={one.kind} value={one.count}>
                {one.words}
              </Figure>
            ))}
            {view.more > 0 && <span>{view.more} more are shown once these are answered</span>}
            <span className="ml-auto flex gap-4">
              <Link className="go" to={`/bank/exchange?account=${account.id}`}>
                What travels
              </Link>
              <Link className="go" to={`/bank/told?account=${account.id}`}>
                All movements
              </Link>
              <Link className="go" to={`/bank/reconciled?account=${account.id}`}>
                Bank and ledger
              </Link>
            </span>
          </>
        )
      }
      list={
        <Loaded query={open}>
          {(data) => (
            <Grid
              list="bank-exceptions"
              label="Movements that wait for an answer"
              items={data.shown.map((row) => ({ key: String(row.id), row }))}
              columns={data.hasHour ? COLUMNS : COLUMNS.filter((one) => one.key !== "decide")}
              cursor={values.at}
              onCursor={(key) => change({ at: key })}
              selected={selected}
              onSelect={setSelected}
              empty="Everything the bank moved is answered. What it tells next is read from a file below, or typed."
            />
          )}
        </Loaded>
      }
      bar={
        <>
          {selected.size > 0 && <Figure value={selected.size}>selected</Figure>}
          <ReadDeeds account={account} agreeing={agreeing} clerk={session.roles.includes("CLERK")} />
        </>
      }
      slip={
        meant.length ? (
          <AnswerForm
            key={meant.map((one) => one.id).join(".")}
            account={account}
            meant={meant}
            done={() => setSelected(new Set())}
          />
        ) : (
          <BankReports account={account.id} />
        )
      }
    />
  );
}
