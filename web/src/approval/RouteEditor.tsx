import type { Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { type Content, type Route, type Person, askedBy, AskedBy } from "./RouteFields";
import { NEW_STEP, StepFields, StepWords } from "./StepFields";

/** The routes from the lightest to the strictest, to read and, as a controller, to change. */
export function RouteEditor({
  content,
  editable,
  marks,
  people,
  accounts,
  onChange,
}: {
  content: Content;
  editable: boolean;
  marks: Schemas["MarkChoice"][];
  people: Person[];
  accounts: Schemas["BankAccountView"][];
  onChange: (next: Content) => void;
}) {
  const put = (index: number, route: Route) =>
    onChange({ routes: content.routes.map((one, i) => (i === index ? route : one)) });
  const approvers = people.filter((one) =>
    one.roles.some((role) => role === "APPROVER" || role === "CONTROLLER"),
  );
  const currencies = [...new Set(accounts.map((account) => account.currency))];
  return (
    <div className="flex max-w-4xl flex-col gap-5">
      {content.routes.map((route, i) => (
        <section key={i} aria-label={`Route ${i + 1}`} className="border-ink border-t pt-2">
          <header className="flex items-center gap-3">
            <span className="text-faint">{i + 1}</span>
            {editable ? (
              <input
                aria-label={`Name of route ${i + 1}`}
                className="w-56 font-bold"
                maxLength={60}
                value={route.name}
                onChange={(event) => put(i, { ...route, name: event.target.value })}
              />
            ) : (
              <h2 className="text-base font-bold">{route.name}</h2>
            )}
            {i === 0 && (
              <span className="text-faint text-note">every batch takes it that asks for no other</span>
            )}
            {editable && i > 0 && (
              <span className="ml-auto flex gap-1">
                <Button
                  aria-label={`Make “${route.name}” lighter`}
                  disabled={i < 2}
                  onClick={() => onChange({ routes: swapped(content.routes, i - 1) })}
                >
                  ↑
                </Button>
                <Button
                  aria-label={`Make “${route.name}” stricter`}
                  disabled={i === content.routes.length - 1}
                  onClick={() => onChange({ routes: swapped(content.routes, i) })}
                >
                  ↓
                </Button>
                <Button onClick={() => onChange({ routes: content.routes.filter((_, j) => j !== i) })}>
                  Take out
                </Button>
              </span>
            )}
          </header>
          {i > 0 &&
            (editable ? (
              <AskedBy
                route={route}
                marks={marks}
                accounts={accounts}
                currencies={currencies}
                put={(next) => put(i, next)}
              />
            ) : (
              <p className="mt-1">{askedBy(route, marks, accounts)}</p>
            ))}
          <ol className="mt-2">
            {route.steps.map((step, j) => (
              <li
                key={j}
                className="border-hair flex flex-wrap items-baseline gap-x-3 gap-y-1 border-t py-1.5"
              >
                {editable ? (
                  <StepFields
                    step={step}
                    number={j + 1}
                    people={approvers}
                    put={(next) =>
                      put(i, { ...route, steps: route.steps.map((one, k) => (k === j ? next : one)) })
                    }
                    takeOut={
                      route.steps.length > 1
                        ? () => put(i, { ...route, steps: route.steps.filter((_, k) => k !== j) })
                        : undefined
                    }
                  />
                ) : (
                  <StepWords step={step} number={j + 1} people={people} />
                )}
              </li>
            ))}
          </ol>
          {editable && (
            <Button look="bare" onClick={() => put(i, { ...route, steps: [...route.steps, NEW_STEP] })}>
              Add a step
            </Button>
          )}
        </section>
      ))}
      {editable && (
        <Button
          className="self-start"
          onClick={() =>
            onChange({
              routes: [
                ...content.routes,
                {
                  name: `Route ${content.routes.length + 1}`,
                  accounts: [],
                  totalOver: [],
                  paymentOver: [],
                  marks: [],
                  steps: [NEW_STEP],
                },
              ],
            })
          }
        >
          Add a stricter route
        </Button>
      )}
    </div>
  );
}

function swapped(routes: Route[], at: number): Route[] {
  const next = [...routes];
  [next[at], next[at + 1]] = [next[at + 1]!, next[at]!];
  return next;
}
