import { useMemo, type ReactNode } from "react";
import type { Schemas } from "../api/client";
import { markWords } from "../marks/Marks";
import { dayMonth } from "../parts/dates";
import type { Column, Item } from "../parts/Grid";
import type { Batch } from "./draftDeeds";
import type { Line } from "./lines";

/** The lines of a batch under the headings of their claims, and each line by its entry. */
export function useLines(batch: Batch, looks: Schemas["LooksView"] | undefined) {
  return useMemo(() => {
    const marks = new Map(looks?.marks.map((one) => [one.claim, one.marks]));
    const noted = new Set(looks?.notes.map((one) => one.claim));
    const lines = new Map<string, Line>();
    const items: Item<Line>[] = [];
    for (const claim of batch.claims) {
      items.push({
        key: `claim-${claim.id}`,
        heading: <ClaimHeading claim={claim} marks={marks.get(claim.id) ?? []} noted={noted.has(claim.id)} />,
      });
      for (const line of claim.lines) {
        const row = { ...line, claim: claim.id, payee: claim.payee };
        lines.set(String(line.invoice), row);
        items.push({ key: String(line.invoice), row });
      }
    }
    return { lines, items };
  }, [batch, looks]);
}

function ClaimHeading({
  claim,
  marks,
  noted,
}: {
  claim: Schemas["ClaimView"];
  marks: Schemas["MarkView"][];
  noted: boolean;
}) {
  return (
    <div className="flex gap-2">
      <b className="truncate">{claim.payee}</b>
      <span className="text-faint truncate text-note">
        {[claim.number || (claim.apart && "set apart"), claim.stubNote && `“${claim.stubNote}”`]
          .filter(Boolean)
          .join(" · ")}
      </span>
      {(marks.length > 0 || noted) && (
        <span className="text-brass shrink-0 text-note">
          {[noted && "noted by the approver", markWords(marks)].filter(Boolean).join(" · ")}
        </span>
      )}
      {claim.held && <span className="text-rust text-note">vendor held: {claim.held}</span>}
      <b className="ml-auto">{claim.amount}</b>
    </div>
  );
}

/** The columns of the lines; `typing` is the amount that is being typed on a line, if one is */
export function columnsOf(batch: Batch, typing: (line: Line) => ReactNode): Column<Line>[] {
  return [
    {
      key: "their-reference",
      title: "Their reference",
      width: "minmax(120px,1.4fr)",
      cell: (line) => (
        <>
          {line.accounts ? (
            <span>{line.accounts}</span>
          ) : (
            <span className="font-mono text-note">{line.reference}</span>
          )}
          <span className="text-faint ml-2 text-note">
            {[
              line.kind === "CREDIT" && "credit",
              line.ownCheck && "own check",
              line.hidden && "summed up on the stub",
              line.byHand && "by hand",
            ]
              .filter(Boolean)
              .join(" · ")}
          </span>
          {line.held && <span className="text-rust ml-2 text-note">held: {line.held}</span>}
        </>
      ),
    },
    {
      key: "dated",
      title: "Dated",
      width: "58px",
      value: (line) => line.invoiceDate,
      cell: (line) => dayMonth(line.invoiceDate),
    },
    {
      key: "due",
      title: "Due",
      width: "58px",
      value: (line) => line.dueDate,
      cell: (line) => (line.kind === "CREDIT" || line.accounts ? "" : dayMonth(line.dueDate)),
    },
    {
      key: "open",
      title: "Open",
      width: "88px",
      right: true,
      cell: (line) => (line.accounts ? "" : line.open),
    },
    { key: "settles", title: "Settles", width: "88px", right: true, cell: (line) => line.gross },
    {
      key: "discount",
      title: "Discount",
      width: "66px",
      right: true,
      cell: (line) => <span className="text-greentext">{line.discount}</span>,
    },
    { key: "credit", title: "Credit", width: "70px", right: true, cell: (line) => line.credit },
    {
      key: "pays",
      title: "Pays",
      width: "112px",
      right: true,
      cell: (line) =>
        line.kind === "CREDIT"
          ? ""
          : (typing(line) ?? (
              <>
                {line.part && batch.state !== "POSTED" && (
                  <span className="text-brass mr-2 text-note">part</span>
                )}
                {line.cash}
              </>
            )),
    },
  ];
}
