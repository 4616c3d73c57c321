import { clock } from "../parts/dates";
import type { Batch } from "./draftDeeds";

const STATES: Record<string, string> = { UNDONE: "undone", DROPPED: "undone, something else done instead" };

/** What changed since the batch was made, newest first. */
export function Changes({ batch }: { batch: Batch }) {
  if (batch.edits.length === 0) return <p className="text-faint">Nothing was changed since it was made.</p>;
  return (
    <ol>
      {batch.edits.map((step) => (
        <li
          key={step.step}
          className={`border-hair border-b py-1 ${step.state === "DONE" ? "" : "text-faint line-through decoration-1"}`}
        >
          <span className="flex justify-between gap-2">
            <span>
              {step.who} {step.what}
            </span>
            <span className="whitespace-nowrap">{step.amount}</span>
          </span>
          <span className="text-faint text-note">
            {clock(step.at)}
            {STATES[step.state] && ` · ${STATES[step.state]}`}
          </span>
        </li>
      ))}
    </ol>
  );
}
