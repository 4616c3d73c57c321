import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { Loaded } from "../parts/Loaded";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";

type Account = Schemas["PracticeAccount"];
type Day = Schemas["PracticeDay"];

/** The bank to practise on, as its own people see it: its accounts, and what it is told to do wrong. */
export function PracticePage() {
  const session = useSession();
  const queries = useQueryClient();
  const [days, setDays] = useState<Day[]>([]);
  const bank = useQuery({ queryKey: ["practice"], queryFn: () => call(api.GET("/api/practice")) });
  const pass = useDeed(() => call(api.POST("/api/practice/day")), {
    done: async (day) => {
      setDays((before) => [day, ...before]);
      await queries.invalidateQueries();
    },
  });
  const clerk = session.roles.includes("CLERK");
  return (
    <Station
      title="The bank to practise on"
      sentence={
        <>
          It is <b>{longDate(session.today)}</b>. The bank hears of us by the files we send, reads them by
          itself, pays checks as they come in, and tells us by files of its own.
        </>
      }
      answer={
        <>
          {bank.data?.map(
            ({ id, name, atTheBank }) =>
              atTheBank && (
                <Figure key={id} value={atTheBank.outstanding}>
                  {atTheBank.outstanding === 1 ? "check" : "checks"} of {name} it knows and has not paid
                </Figure>
              ),
          )}
          <Link className="go ml-auto" to="/bank/exchange">
            What travels
          </Link>
        </>
      }
      list={
        <div className="min-h-0 flex-1 overflow-auto px-5 py-4" tabIndex={0} data-list>
          <Loaded query={bank}>
            {(accounts) =>
              accounts.length === 0 ? (
                <p className="text-faint">
                  No account is with it. An administrator says on an account’s page how its files travel.
                </p>
              ) : (
                <>
                  {accounts.map((one) => (
                    <AtTheBank key={one.id} account={one} clerk={clerk} />
                  ))}
                </>
              )
            }
          </Loaded>
        </div>
      }
      bar={
        <>
          <Refusal deed={pass} />
          <Button
            look="deed"
            className="ml-auto"
            disabled={!clerk || pass.busy || !bank.data?.length}
            onClick={() => void pass.run()}
          >
            Let the day pass
          </Button>
        </>
      }
      slip={
        <div className="flex flex-col gap-3">
          <h2 className="font-semibold">Days that passed</h2>
          {days.length === 0 && (
            <p className="text-faint">
              When a day passes, the bank takes what was sent, pays what comes in, and lays its list and
              statement there for us. The company’s day goes on with it.
            </p>
          )}
          <ul>
            {days.map((day) => (
              <li key={day.day} className="border-hair border-t py-2">
                <b>{longDate(day.day)}</b>
                <ul className="list-disc pl-5">
                  {day.did.map((one, i) => (
                    <li key={i}>{one}</li>
                  ))}
                </ul>
                <div className="text-faint text-note">
                  {day.came} {day.came === 1 ? "file" : "files"} came
                </div>
              </li>
            ))}
          </ul>
        </div>
      }
    />
  );
}

function AtTheBank({ account, clerk }: { account: Account; clerk: boolean }) {
  const queries = useQueryClient();
  const done = () => queries.invalidateQueries();
  const order = useDeed(
    (wanted: { what: Account["mischief"][number]["name"]; wanted: boolean }) =>
      call(api.POST("/api/practice/order", { body: { account: account.id, ...wanted } })),
    { line: `practice ${account.id}`, done },
  );
  const write = useDeed(
    (writes: Account["writes"][number]["name"]) =>
      call(api.POST("/api/practice/writing", { body: { account: account.id, writes } })),
    { line: `practice ${account.id}`, done },
  );
  const ask = useDeed(() => call(api.POST("/api/practice/ask", { body: { account: account.id } })), {
    done,
    said: ({ came }) => `${came} ${came === 1 ? "file" : "files"} came.`,
  });
  const held = account.atTheBank?.held ?? [];
  return (
    <section aria-label={account.name} className="mb-8 max-w-2xl">
      <h2 className="mb-1 text-base font-bold">{account.name}</h2>
      <Standing account={account} />
      {held.length > 0 && (
        <p className="mt-2 flex flex-wrap items-center gap-3">
          <span>
            Not sent yet: <span className="font-mono">{held.join(", ")}</span>
          </span>
          {clerk && (
            <Button disabled={ask.busy} onClick={() => void ask.run()}>
              Ask for it
            </Button>
          )}
        </p>
      )}
      <label className="mt-3 flex flex-wrap items-center gap-2">
        It writes
        <select
          disabled={!clerk || write.busy}
          value={account.writes.find((one) => one.chosen)?.name}
          onChange={(event) => void write.run(event.target.value as Account["writes"][number]["name"])}
        >
          {account.writes.map((one) => (
            <option key={one.name} value={one.name}>
              {one.words}
            </option>
          ))}
        </select>
      </label>
      <fieldset className="mt-4" disabled={!clerk}>
        <legend className="mb-1 font-semibold">On its next day it shall</legend>
        <div className="grid grid-cols-2 gap-x-6 max-[640px]:grid-cols-1">
          {account.mischief.map((one) => (
            <label key={one.name} className="flex min-h-7 items-center gap-2">
              <input
                type="checkbox"
                className="min-h-0"
                checked={one.ordered}
                onChange={(event) => void order.run({ what: one.name, wanted: event.target.checked })}
              />
              {one.words}
            </label>
          ))}
        </div>
      </fieldset>
      <p className="text-faint text-note mt-2">
        What cannot be done on a day, such as paying a voided check while it knows of none, stays ordered.
      </p>
      <Refusal deed={order} />
      <Refusal deed={write} />
      <Refusal deed={ask} />
    </section>
  );
}

function Standing({ account: { positivePay, atTheBank } }: { account: Account }) {
  return (
    <>
      {atTheBank ? (
        <p>
          On {longDate(atTheBank.until)} it stood at <b>{atTheBank.balance.text}</b>{" "}
          {atTheBank.balance.currency}, on statement {atTheBank.statement}.
        </p>
      ) : (
        <p>It begins there with the first day that passes.</p>
      )}
      {!positivePay && <p>No file tells the bank of its checks; it pays what people bring.</p>}
    </>
  );
}
