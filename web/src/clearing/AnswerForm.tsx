import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { longDate, clock } from "../parts/dates";
import { Facts } from "../parts/Facts";
import { ChoiceEntry, DayEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";

type Exception = Schemas["ExceptionView"];
type Answer = Schemas["AnswerChoice"]["answer"];
type Against = Schemas["MatchedWith"];

/** What one movement, or several alike, is about, and the answers there are. */
export function AnswerForm({
  account,
  meant,
  done,
}: {
  account: Schemas["BankAccountView"];
  meant: Exception[];
  done: () => void;
}) {
  const { roles } = useSession();
  const first = meant[0]!;
  const answers = first.answers.filter((answer) =>
    meant.every((one) => one.answers.some((other) => other.answer === answer.answer)),
  );
  const [chosen, setChosen] = useState<Answer>();
  const answer = answers.find((one) => one.answer === chosen) ?? answers[0];
  return (
    <div className="flex flex-col gap-4">
      {meant.length === 1 ? <About one={first} /> : <Several meant={meant} />}
      {!roles.includes("CLERK") ? null : answer ? (
        <>
          <fieldset className="border-hair flex flex-col border-t pt-3">
            <legend className="sr-only">Answer</legend>
            {answers.map((one) => (
              <label key={one.answer} className="flex min-h-7 items-center gap-2">
                <input
                  type="radio"
                  name="answer"
                  className="min-h-0"
                  checked={one.answer === answer.answer}
                  onChange={() => setChosen(one.answer)}
                />
                {one.words}
              </label>
            ))}
          </fieldset>
          {meant.length === 1 && <p>{answer.then}</p>}
          <Given key={answer.answer} account={account} meant={meant} answer={answer} done={done} />
        </>
      ) : (
        <p className="text-faint">
          {first.kind === "AGREES" && meant.length === 1
            ? "It agrees with its check by now: clear what agrees, below."
            : "No answer is right for all of these. Select movements that wait for the same reason."}
        </p>
      )}
    </div>
  );
}

function About({ one }: { one: Exception }) {
  const facts: [string, string][] = [
    ["Bank", `${longDate(one.day)}, ${one.toldBy}`],
    [one.in ? "In" : "Out", `${one.amount.text} ${one.amount.currency}`],
  ];
  if (one.number) facts.push(["Number", one.number]);
  if (one.text) facts.push(["Text", one.text]);
  if (one.reference) facts.push(["Reference", one.reference]);
  if (one.check) facts.push(["Our check", one.check]);
  if (one.payee) facts.push(["Payee", one.payee]);
  if (one.checkAmount) facts.push(["For", `${one.checkAmount.text} ${one.checkAmount.currency}`]);
  return (
    <div className="flex flex-col gap-3">
      <h2 className="font-semibold">{one.kindWords}</h2>
      <p>{one.sentence}</p>
      {one.decideBy && (
        <p className={one.late ? "text-rust" : "text-brass"}>
          {one.late
            ? `The bank's hour to return it passed (${clock(one.decideBy)}); it has paid.`
            : `The bank returns it if it is told by ${clock(one.decideBy)}.`}
        </p>
      )}
      <Facts facts={facts} />
    </div>
  );
}

function Several({ meant }: { meant: Exception[] }) {
  return (
    <div className="flex flex-col gap-2">
      <h2 className="font-semibold">{meant.length} movements, answered alike</h2>
      <ul>
        {meant.slice(0, 12).map((one) => (
          <li key={one.id} className="border-hair flex justify-between border-t py-1">
            <span>
              <span className="font-mono">{one.number}</span> {one.payee || one.text}
            </span>
            <span>{one.amount.text}</span>
          </li>
        ))}
      </ul>
      {meant.length > 12 && <p className="text-faint">and {meant.length - 12} more</p>}
    </div>
  );
}

function Given({
  account,
  meant,
  answer,
  done,
}: {
  account: Schemas["BankAccountView"];
  meant: Exception[];
  answer: Schemas["AnswerChoice"];
  done: () => void;
}) {
  const queries = useQueryClient();
  const first = meant[0]!;
  const [has, setHas] = useState<Against[]>([]);
  const ledger = useQuery({
    queryKey: ["ledger-accounts"],
    queryFn: () => call(api.GET("/api/ledger-accounts")),
    enabled: answer.entered,
  });
  const form = useKeptForm(
    `answer ${answer.answer} ${meant.map((one) => one.id).join(".")}`,
    {
      why: "",
      ledgerAccount: first.proposedAccount ? String(first.proposedAccount) : "",
      on: "",
      words: "",
      number: "",
    },
    (typed) =>
      call(
        api.POST("/api/bank-exceptions/answer", {
          body: {
            account: account.id,
            movements: meant.map(({ id, version }) => ({ movement: id, version })),
            answer: answer.answer,
            why: typed.why,
            ledgerAccount: typed.ledgerAccount ? Number(typed.ledgerAccount) : undefined,
            on: typed.on || undefined,
            remember: typed.words,
            number: typed.number,
            has,
          },
        }),
      ),
    {
      done: async ({ answered }) => {
        await queries.invalidateQueries();
        toast(`${answered === 1 ? "The movement is" : `${answered} movements are`} answered.`);
        done();
      },
    },
  );
  const deed = meant.length === 1 ? "Answer it" : `Answer all ${meant.length}`;
  return (
    <Form form={form} label="Answer" deed={deed} className="gap-3">
      {answer.answer === "ANOTHER_CHECK" && (
        <Entry name="number" label="The number it has" look="font-mono w-40" maxLength={40} />
      )}
      {answer.entered && (
        <>
          <ChoiceEntry
            name="ledgerAccount"
            label={
              first.proposedAccountName
                ? `Account (“${first.words}” went to ${first.proposedAccountName} before)`
                : "Account"
            }
            choices={[
              { value: "", text: "Choose…" },
              ...(ledger.data ?? [])
                .filter((one) => one.kind !== "PAYABLES" && !one.closedFrom)
                .map((one) => ({ value: String(one.id), text: `${one.code} ${one.name}` })),
            ]}
          />
          <DayEntry name="on" label="Ledger date (the bank's day where none is given)" />
          {answer.answer === "ENTER" && (
            <Entry
              name="words"
              label="Propose this account for movements that say (part of the text)"
              maxLength={120}
            />
          )}
        </>
      )}
      {answer.answer === "MATCH" && (
        <Candidates account={account.id} movement={first} has={has} onChange={setHas} />
      )}
      {answer.needsReason && <Entry name="why" label="Why" rows={2} maxLength={300} />}
    </Form>
  );
}

const same = (one: Against, other: Against) => one.kind === other.kind && one.of === other.of;

/** What the ledger, a list or the bank's debt has; what comes to the same stands first. */
function Candidates({
  account,
  movement,
  has,
  onChange,
}: {
  account: number;
  movement: Exception;
  has: Against[];
  onChange: (has: Against[]) => void;
}) {
  const found = useQuery({
    queryKey: ["bank-candidates", movement.id, movement.version],
    queryFn: () =>
      call(
        api.GET("/api/bank-exceptions/{id}/candidates", {
          params: { path: { id: movement.id }, query: { account } },
        }),
      ),
  });
  if (found.isError) return <p className="text-rust">What it could be did not come. Look again.</p>;
  if (!found.data) return <p className="text-faint">Looking for what it could be…</p>;
  if (found.data.length === 0) return <p className="text-faint">The ledger has nothing it could be.</p>;
  return (
    <ul className="max-h-64 overflow-auto" aria-label="What it could be">
      {found.data.map(({ kind, of, ...one }) => (
        <li key={`${kind} ${of}`} className="border-hair border-t">
          <label className="flex min-h-8 items-center gap-2 py-1">
            <input
              type="checkbox"
              className="min-h-0"
              checked={has.some((other) => same(other, { kind, of }))}
              onChange={(event) =>
                onChange(
                  event.target.checked
                    ? [...has, { kind, of }]
                    : has.filter((other) => !same(other, { kind, of })),
                )
              }
            />
            <span className="min-w-0 flex-1">
              {one.text}
              <span className="text-faint block text-note">{longDate(one.on)}</span>
            </span>
            <span className={one.same ? "font-bold" : ""}>{one.amount.text}</span>
          </label>
        </li>
      ))}
    </ul>
  );
}
