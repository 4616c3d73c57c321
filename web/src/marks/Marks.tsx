import { useState } from "react";
import type { Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { shortDate } from "../parts/dates";
import { Field } from "../parts/Field";

type Mark = Schemas["MarkView"];
type Fact = Schemas["FactView"];

/** What about a payment deserves a look, each with its reason, its facts, and what the clerk found out. */
export function Marks({
  marks,
  answer,
}: {
  marks: Mark[];
  /** Keeps what was found out; where it is missing, answers are only shown. */
  answer?: (key: string, note: string) => Promise<boolean>;
}) {
  return (
    <ul aria-label="Marks" className="flex flex-col gap-3">
      {marks.map((mark) => (
        <li key={mark.key} className="callout">
          <h3 className="text-brass font-bold">{mark.words}</h3>
          <p>{mark.reason}</p>
          {mark.facts.map((fact, i) => (
            <FactLines key={i} fact={fact} />
          ))}
          {mark.answer && (
            <p className="mt-1">
              <b>{mark.answeredBy}:</b> “{mark.answer}”
            </p>
          )}
          {answer && <Answer mark={mark} answer={answer} />}
        </li>
      ))}
    </ul>
  );
}

function FactLines({ fact }: { fact: Fact }) {
  if (fact.range) return <UsualRange range={fact.range} />;
  if (fact.kind === "CHANGE")
    return (
      <table className="mt-1 w-full text-note">
        <tbody>
          <tr className="align-top">
            <th scope="row" className="text-faint w-14 text-left font-normal">
              before
            </th>
            <td className="line-through decoration-1">{fact.before}</td>
          </tr>
          <tr className="align-top">
            <th scope="row" className="text-faint text-left font-normal">
              now
            </th>
            <td>{fact.after}</td>
          </tr>
          <tr className="align-top">
            <th scope="row" className="text-faint text-left font-normal">
              by
            </th>
            <td>
              {fact.detail}
              {fact.date && `, ${shortDate(fact.date)}`}
            </td>
          </tr>
        </tbody>
      </table>
    );
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 text-note">
      <span className="font-mono">{fact.title}</span>
      {fact.date && <span>{shortDate(fact.date)}</span>}
      <span>{fact.amount}</span>
      {fact.detail && <span className="text-faint">{fact.detail}</span>}
    </p>
  );
}

/** The last payments as a bar from the lowest to the highest, the middle one marked, and this payment at the right end. */
function UsualRange({ range }: { range: Schemas["UsualRange"] }) {
  const width = 300;
  const at = (percent: number) => 6 + (percent / 100) * (width - 12);
  const words = `The last ${range.known} payments were ${range.low} to ${range.high}, in the middle ${range.median}; this one is ${range.now}.`;
  return (
    <figure className="mt-2">
      <svg viewBox={`0 0 ${width} 22`} role="img" aria-label={words} className="block w-full max-w-[340px]">
        <line x1={6} y1={11} x2={width - 6} y2={11} stroke="var(--hair)" strokeWidth={2} />
        <line
          x1={at(range.lowAt)}
          y1={11}
          x2={Math.max(at(range.highAt), at(range.lowAt) + 2)}
          y2={11}
          stroke="var(--green)"
          strokeWidth={8}
        />
        <line
          x1={at(range.medianAt)}
          y1={3}
          x2={at(range.medianAt)}
          y2={19}
          stroke="var(--ink)"
          strokeWidth={2}
        />
        <circle cx={at(100)} cy={11} r={5} fill="var(--brass)" />
      </svg>
      <figcaption className="text-faint text-note">{words}</figcaption>
    </figure>
  );
}

function Answer({ mark, answer }: { mark: Mark; answer: (key: string, note: string) => Promise<boolean> }) {
  const [note, setNote] = useState("");
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <button type="button" className="go min-h-6" onClick={() => setOpen(true)}>
        {mark.answer ? "Say more…" : "Say what you found out…"}
      </button>
    );
  return (
    <form
      className="mt-1 flex flex-col gap-1"
      onSubmit={async (event) => {
        event.preventDefault();
        if (await answer(mark.key, note)) {
          setNote("");
          setOpen(false);
        }
      }}
    >
      <Field label="What the approvers should know" small>
        <textarea
          rows={2}
          maxLength={500}
          autoFocus
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
      </Field>
      <span className="flex gap-2">
        <Button type="submit" disabled={note.trim() === ""}>
          Send it along
        </Button>
        <Button look="bare" onClick={() => setOpen(false)}>
          Not now
        </Button>
      </span>
    </form>
  );
}

/** How a mark is named in a list. */
export function markWords(marks: Mark[]): string {
  return [...new Set(marks.map((mark) => mark.words))].join(" · ");
}
