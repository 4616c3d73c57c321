import { useState } from "react";
import { Figure } from "../frame/Station";
import { longDate } from "../parts/dates";
import type { Change, Question } from "./criteria";
import type { DueView } from "./useDueList";

/** What the sentence comes to, in figures, and the ways on from there. */
export function DueAnswer({
  view,
  question,
  marks,
  horizon,
  change,
}: {
  view: DueView;
  question: Question;
  /** Taken out or in by hand. */
  marks: number;
  horizon: boolean;
  change: Change;
}) {
  const [asked, setAsked] = useState("");
  return (
    <>
      <Figure value={view.count}>
        taken, <b className="text-ink">{view.claims}</b> {view.claims === 1 ? "claim" : "claims"}
      </Figure>
      <Figure value={view.toPay}>to pay</Figure>
      {!view.checkDateIsBankingDay && (
        <span className="text-brass">{longDate(view.checkDate)} is no banking day</span>
      )}
      <Figure value={view.saved}>saved</Figure>
      {question.credits && <Figure value={view.credited}>credits used</Figure>}
      {view.left !== undefined && view.left !== null && (
        <Figure value={view.left} look={view.overLimit ? "text-rust" : ""}>
          {view.overLimit ? "over the limit" : "left of the limit"}
        </Figure>
      )}
      {(view.leftOutCount > 0 || view.creditsOut.length > 0) && (
        <button
          type="button"
          className="text-brass min-h-6 truncate underline underline-offset-2"
          onClick={() => change({ panel: "left-out" })}
        >
          <b>{view.leftOutCount}</b> left out
        </button>
      )}
      {marks > 0 && (
        <button
          type="button"
          className="go min-h-6"
          onClick={() => change({ out: undefined, in: undefined })}
        >
          forget {marks} {marks === 1 ? "mark" : "marks"} by hand
        </button>
      )}
      <form
        className="ml-auto flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (asked.trim()) change({ panel: "where", where: asked.trim() });
        }}
      >
        <input
          aria-label="Where is this invoice?"
          placeholder="Where is … ?"
          className="min-h-6 w-36 py-0"
          value={asked}
          onChange={(event) => setAsked(event.target.value)}
        />
      </form>
      <button
        type="button"
        aria-expanded={horizon}
        className="go min-h-6"
        onClick={() => change({ horizon: horizon ? undefined : "yes" })}
      >
        Horizon
      </button>
    </>
  );
}
