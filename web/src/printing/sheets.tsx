import type { Schemas } from "../api/client";
import type { Item } from "../parts/Grid";
import type { Row, Unnumbered } from "./sheetRows";
import type { Out } from "./TakeOut";

type Printing = Schemas["PrintingView"];
type Sheet = Schemas["SheetView"];

/** The sheets of a batch and the payments without one, each by its key in the list. */
export interface Sheets {
  sheets: Map<string, Sheet>;
  unnumbered: Map<string, Unnumbered>;
  /** Handed over and without an answer; nothing need be known of the paper. */
  waiting: Set<string>;
}

export function sheetsOf(printing: Printing): Sheets {
  return {
    sheets: new Map(printing.runs.flatMap((run) => run.sheets.map((s) => [String(s.document), s] as const))),
    unnumbered: new Map(printing.unnumbered.map((one) => [`claim-${one.claim}`, one])),
    waiting: new Set(
      printing.runs
        .filter((run) => run.sent)
        .flatMap((run) => run.sheets.filter((s) => !s.answer).map((s) => String(s.document))),
    ),
  };
}

/** What can be done with the chosen sheets, or with the cursor's where none is chosen. */
export interface Chosen {
  keys: string[];
  open: string[];
  blank: string[];
  removable: string[];
  spoilable: boolean;
  /** Claims that wait for a number and may have one. */
  ready: number[];
  /** All of the chosen that are not posted. */
  claims: number[];
}

/** An earlier sheet of a number that was printed once more is done with. */
function isLatest({ sheets }: Sheets, sheet: Sheet): boolean {
  return [...sheets.values()].every(
    (other) => other.number !== sheet.number || other.document <= sheet.document,
  );
}

export function isSpoilable(all: Sheets, key: string): boolean {
  const sheet = all.sheets.get(key);
  const open = sheet?.answer === "GOOD" || (sheet?.answer === "AGAIN" && isLatest(all, sheet));
  return all.waiting.has(key) || (open && !sheet.posted);
}

export function chosenOf(all: Sheets, selected: Set<string>, cursor: string | undefined): Chosen {
  const { sheets, unnumbered, waiting } = all;
  const keys = [...(selected.size > 0 ? selected : cursor ? [cursor] : [])].filter(
    (key) => sheets.has(key) || unnumbered.has(key),
  );
  return {
    keys,
    open: keys.filter((key) => waiting.has(key)),
    blank: keys.filter((key) => sheets.get(key)?.answer === "BLANK" && !sheets.get(key)?.posted),
    claims: keys.flatMap((key) => {
      const sheet = sheets.get(key);
      return sheet ? (sheet.posted ? [] : [sheet.claim]) : [unnumbered.get(key)!.claim];
    }),
    ready: [...selected].flatMap((key) => {
      const one = unnumbered.get(key);
      return one && !one.why ? [one.claim] : [];
    }),
    removable: keys.filter((key) => unnumbered.has(key) || !sheets.get(key)?.posted),
    spoilable: keys.length > 0 && keys.every((key) => isSpoilable(all, key)),
  };
}

/** The payments behind some rows, to be taken out. */
export function takenOut({ sheets, unnumbered }: Sheets, keys: string[]): Out {
  const numbered = keys.map((key) => sheets.get(key)).filter((one) => one !== undefined);
  const rest = keys.map((key) => unnumbered.get(key)).filter((one) => one !== undefined);
  const all = [...numbered, ...rest];
  return {
    claims: [...new Set(all.map((one) => one.claim))],
    words: [...new Set(all.map((one) => one.payee))],
    numbered: numbered.some((one) => one.answer !== "SPOILED"),
  };
}

/** What waits for a number, then run after run. */
export function itemsOf(printing: Printing, { unnumbered }: Sheets): Item<Row>[] {
  const behind = printing.unnumbered.filter((one) => one.why).length;
  const without = {
    key: "unnumbered",
    heading: (
      <span>
        <b>Without a number</b>{" "}
        <span className="text-faint">
          {unnumbered.size} {unnumbered.size === 1 ? "payment" : "payments"}
          {behind > 0 && `, ${behind} of them kept back`}
        </span>
      </span>
    ),
  };
  return [
    ...(unnumbered.size === 0 ? [] : [without]),
    ...[...unnumbered].map(([key, waiting]) => ({ key, row: { waiting } })),
    ...printing.runs.flatMap((run, i) => [
      { key: `run-${run.run}`, heading: <RunHeading run={run} place={i + 1} /> },
      ...run.sheets.map((sheet) => ({ key: String(sheet.document), row: { sheet, sent: run.sent } })),
    ]),
  ];
}

function RunHeading({ run, place }: { run: Printing["runs"][number]; place: number }) {
  return (
    <span>
      <b>Run {place}</b>{" "}
      <span className="text-faint">
        {run.sheets.length} {run.sheets.length === 1 ? "sheet" : "sheets"}, by {run.madeBy}
        {run.sent ? "" : ", not handed to the printer yet"}
      </span>{" "}
      {run.sent && (
        <a className="go float-right" href={`/api/runs/${run.run}/copy.pdf`} target="_blank" rel="noreferrer">
          marked copy as PDF
        </a>
      )}
    </span>
  );
}
