import type { Schemas } from "../api/client";
import { Button } from "../parts/Button";
import type { Person } from "./RouteFields";

type Step = Schemas["StepContent"];

export const NEW_STEP: Step = {
  name: "Approval",
  role: "APPROVER",
  people: [],
  needed: 1,
  remindAfterHours: 24,
  escalateAfterHours: 0,
  secondLine: [],
};

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
