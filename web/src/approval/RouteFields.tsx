import type { Schemas } from "../api/client";
import { Button } from "../parts/Button";

export type Content = Schemas["PolicyContent"];

export type Route = Schemas["RouteContent"];

type Step = Schemas["StepContent"];

type Limit = Schemas["LimitContent"];

export type Person = Schemas["ColleagueView"];

export const NEW_STEP: Step = {
  name: "Approval",
  role: "APPROVER",
  people: [],
  needed: 1,
  remindAfterHours: 24,
  escalateAfterHours: 0,
  secondLine: [],
};

export function askedBy(
  route: Route,
  marks: Schemas["MarkChoice"][],
  accounts: Schemas["BankAccountView"][],
): string {
  const limit = (limits: Limit[]) => limits.map((one) => `${one.amount} ${one.currency}`).join(" or ");
  const asked = [
    route.totalOver.length > 0 && `a total over ${limit(route.totalOver)}`,
    route.paymentOver.length > 0 && `a payment over ${limit(route.paymentOver)}`,
    route.marks.length > 0 &&
      `a payment marked ${route.marks.map((kind) => marks.find((one) => one.kind === kind)?.words ?? kind).join(", or ")}`,
  ].filter(Boolean);
  const where =
    route.accounts.length > 0
      ? ` Only for ${route.accounts.map((id) => accounts.find((one) => one.id === id)?.name ?? id).join(" and ")}.`
      : "";
  return `Asked for by ${asked.length === 0 ? "every batch" : asked.join("; ")}.${where}`;
}

export function StepWords({ step, number, people }: { step: Step; number: number; people: Person[] }) {
  const named = (ids: number[]) =>
    ids.map((id) => people.find((one) => one.id === id)?.name ?? "somebody who left").join(", ");
  return (
    <>
      <span className="text-faint">step {number}</span>
      <b>{step.name}</b>
      <span>
        {step.needed} of {step.role ? `all with the role ${step.role.toLowerCase()}` : named(step.people)}
      </span>
      <span className="text-faint text-note">
        {[
          step.remindAfterHours > 0 && `reminded every ${step.remindAfterHours} h`,
          step.escalateAfterHours > 0 && `after ${step.escalateAfterHours} h also ${named(step.secondLine)}`,
        ]
          .filter(Boolean)
          .join("; ")}
      </span>
    </>
  );
}

export function AskedBy({
  route,
  marks,
  accounts,
  currencies,
  put,
}: {
  route: Route;
  marks: Schemas["MarkChoice"][];
  accounts: Schemas["BankAccountView"][];
  currencies: string[];
  put: (next: Route) => void;
}) {
  const limits = (title: string, of: Limit[], set: (next: Limit[]) => void) => (
    <div className="flex flex-wrap items-center gap-2">
      <span className="w-28">{title}</span>
      {currencies.map((currency) => (
        <label key={currency} className="flex items-center gap-1">
          <input
            aria-label={`${title}, ${currency}`}
            className="w-28 text-right"
            inputMode="decimal"
            placeholder="no limit"
            value={of.find((one) => one.currency === currency)?.amount ?? ""}
            onChange={(event) => {
              const rest = of.filter((one) => one.currency !== currency);
              set(event.target.value.trim() ? [...rest, { currency, amount: event.target.value }] : rest);
            }}
          />
          {currency}
        </label>
      ))}
    </div>
  );
  return (
    <fieldset className="mt-2 flex flex-col gap-2">
      <legend className="text-faint text-note">Asked for by any of these</legend>
      {limits("a total over", route.totalOver, (totalOver) => put({ ...route, totalOver }))}
      {limits("a payment over", route.paymentOver, (paymentOver) => put({ ...route, paymentOver }))}
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="w-28">a mark</span>
        {marks.map((mark) => (
          <label key={mark.kind} className="flex min-h-6 items-center gap-1.5">
            <input
              type="checkbox"
              className="min-h-0"
              checked={route.marks.includes(mark.kind as Route["marks"][number])}
              onChange={(event) =>
                put({
                  ...route,
                  marks: event.target.checked
                    ? [...route.marks, mark.kind as Route["marks"][number]]
                    : route.marks.filter((kind) => kind !== mark.kind),
                })
              }
            />
            {mark.words}
          </label>
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="w-28">only for</span>
        {accounts.map((account) => (
          <label key={account.id} className="flex min-h-6 items-center gap-1.5">
            <input
              type="checkbox"
              className="min-h-0"
              checked={route.accounts.includes(account.id)}
              onChange={(event) =>
                put({
                  ...route,
                  accounts: event.target.checked
                    ? [...route.accounts, account.id]
                    : route.accounts.filter((id) => id !== account.id),
                })
              }
            />
            {account.name}
          </label>
        ))}
        <span className="text-faint text-note">none ticked: all bank accounts</span>
      </div>
    </fieldset>
  );
}

export function StepFields({
  step,
  number,
  people,
  put,
  takeOut,
}: {
  step: Step;
  number: number;
  people: Person[];
  put: (next: Step) => void;
  takeOut: (() => void) | undefined;
}) {
  const hours = (label: string, value: number, set: (next: number) => void) => (
    <label className="flex items-center gap-1">
      {label}
      <input
        type="number"
        min={0}
        max={720}
        className="w-16 text-right"
        value={value}
        onChange={(event) => set(Number(event.target.value))}
      />
      h
    </label>
  );
  const pick = (title: string, chosen: number[], set: (next: number[]) => void) => (
    <fieldset className="flex flex-wrap gap-x-3">
      <legend className="sr-only">{title}</legend>
      {people.map((person) => (
        <label key={person.id} className="flex min-h-6 items-center gap-1.5">
          <input
            type="checkbox"
            className="min-h-0"
            checked={chosen.includes(person.id)}
            onChange={(event) =>
              set(event.target.checked ? [...chosen, person.id] : chosen.filter((id) => id !== person.id))
            }
          />
          {person.name}
        </label>
      ))}
    </fieldset>
  );
  return (
    <div className="flex w-full flex-col gap-1.5">
      <div className="flex flex-wrap items-center gap-2">
        <span className="text-faint">step {number}</span>
        <input
          aria-label={`Name of step ${number}`}
          className="w-44"
          maxLength={60}
          value={step.name}
          onChange={(event) => put({ ...step, name: event.target.value })}
        />
        <label className="flex items-center gap-1">
          <input
            type="number"
            min={1}
            max={9}
            aria-label={`How many at step ${number}`}
            className="w-14 text-right"
            value={step.needed}
            onChange={(event) => put({ ...step, needed: Number(event.target.value) })}
          />
          of
        </label>
        <select
          aria-label={`Who takes step ${number}`}
          value={step.role ?? "PEOPLE"}
          onChange={(event) => {
            const role = event.target.value;
            put(
              role === "PEOPLE"
                ? { ...step, role: undefined, people: people.slice(0, 1).map((one) => one.id) }
                : { ...step, role: role as Step["role"], people: [] },
            );
          }}
        >
          <option value="APPROVER">all approvers</option>
          <option value="CONTROLLER">all controllers</option>
          <option value="PEOPLE">these people</option>
        </select>
        {takeOut && (
          <Button look="bare" onClick={takeOut}>
            Take the step out
          </Button>
        )}
      </div>
      {!step.role && pick("Who", step.people, (next) => put({ ...step, people: next }))}
      <div className="text-faint flex flex-wrap items-center gap-3 text-note">
        {hours("remind every", step.remindAfterHours, (next) => put({ ...step, remindAfterHours: next }))}
        {hours("ask the second line after", step.escalateAfterHours, (next) =>
          put({ ...step, escalateAfterHours: next }),
        )}
        <span>0 is never</span>
      </div>
      {step.escalateAfterHours > 0 && (
        <div className="flex flex-wrap items-center gap-2">
          <span className="text-faint text-note">second line:</span>
          {pick("Second line", step.secondLine, (next) => put({ ...step, secondLine: next }))}
        </div>
      )}
    </div>
  );
}
