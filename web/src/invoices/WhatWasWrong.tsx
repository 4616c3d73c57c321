import { DayField } from "../parts/DayField";
import { Field } from "../parts/Field";
import type { Correcting } from "./useCorrecting";

/** Why a document is entered anew, and on which day the wrong one is reversed and this one posted. */
export function WhatWasWrong({ correcting }: { correcting: Correcting }) {
  const { why, setWhy } = correcting;
  return (
    <div className="callout grid grid-cols-[minmax(200px,1.4fr)_170px] gap-3">
      <Field label="What was wrong with it" small>
        <input
          name="reason"
          maxLength={200}
          value={why.reason}
          onChange={(event) => setWhy({ ...why, reason: event.target.value })}
        />
      </Field>
      <DayField
        label="In the ledger on"
        name="reversed"
        value={why.on}
        onDay={(on) => setWhy({ ...why, on: on ?? "" })}
      />
    </div>
  );
}
