import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { Figure, Station } from "../frame/Station";
import { Loaded } from "../parts/Loaded";
import { useSetup } from "./useSetup";

type Step = Schemas["SetupStepView"];

/** From nothing to the first check: what is there, what is missing, and what it unlocks. */
export function SetupPage() {
  const setup = useSetup();
  return (
    <Loaded query={setup}>
      {({ ready, steps }) => (
        <Station
          title="Set up"
          sentence={
            ready ? (
              <>
                Everything is there that a check needs: see what is{" "}
                <Link className="go" to="/due">
                  due
                </Link>
                .
              </>
            ) : (
              <>From nothing to the first check: what is missing, in any order.</>
            )
          }
          answer={
            <>
              <Figure value={`${steps.filter((step) => step.done).length} of ${steps.length}`}>done</Figure>
              {!ready && (
                <Figure value={steps.filter((step) => !step.done && !step.optional).length} look="text-brass">
                  hold up the first check
                </Figure>
              )}
            </>
          }
          list={
            <ol className="min-h-0 flex-1 overflow-auto" tabIndex={0} data-list aria-label="Steps">
              {steps.map((step, place) => (
                <StepRow key={step.step} step={step} place={place + 1} />
              ))}
            </ol>
          }
        />
      )}
    </Loaded>
  );
}

function StepRow({ step, place }: { step: Step; place: number }) {
  return (
    <li className="border-hair grid grid-cols-[32px_86px_minmax(0,1fr)] items-baseline gap-3 border-b px-5 py-2.5">
      <span className="text-faint text-right">{place}</span>
      <span className={step.done ? "text-greentext" : step.optional ? "text-faint" : "text-brass"}>
        <b>{step.done ? "done" : step.optional ? "can wait" : "missing"}</b>
      </span>
      <span>
        <Link className="go font-bold" to={step.address}>
          {step.title}
        </Link>
        {step.missing && <span className="ml-2">{step.missing}</span>}
        <span className="text-faint block text-note">
          Unlocks: {step.unlocks}.{" "}
          {!step.done && (step.mine ? <b>This is yours to do.</b> : `Done by ${step.doneBy}.`)}
        </span>
      </span>
    </li>
  );
}
