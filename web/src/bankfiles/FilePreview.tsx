import { useState } from "react";
import type { Schemas } from "../api/client";

type Preview = Schemas["PreviewView"];

interface Spot {
  record: number;
  field: number;
}

/** The records with a ruler: each character leads to its field, and the field to where it stands in every record. */
export function FilePreview({
  preview,
  meant,
  onMeant,
}: {
  preview: Preview;
  /** The field that is chosen elsewhere: its record's kind, and its place there. */
  meant?: { record: number; field: number };
  onMeant?: (kind: number, field: number) => void;
}) {
  const [at, setAt] = useState<Spot>();
  const { records, kinds } = preview;
  const width = Math.max(0, ...records.map((record) => record.text.length));
  const ruler = Array.from({ length: width }, (_, i) =>
    (i + 1) % 10 === 0 ? String(((i + 1) / 10) % 10) : "·",
  ).join("");
  const chosen = at && records[at.record];
  return (
    <>
      {preview.findings.map((finding, i) => (
        <p key={i} role="alert" className="text-rust">
          Row {finding.row}, {finding.field}: {finding.sentence}
        </p>
      ))}
      <div
        tabIndex={0}
        role="group"
        aria-label="The file"
        className="border-hair bg-paper max-h-56 overflow-auto border p-2 font-mono text-note whitespace-pre"
        onPointerOver={(event) => {
          const spot = (event.target as HTMLElement).dataset;
          if (spot.record) setAt({ record: Number(spot.record), field: Number(spot.field) });
        }}
        onClick={(event) => {
          const spot = (event.target as HTMLElement).dataset;
          if (spot.record) onMeant?.(records[Number(spot.record)]!.kind, Number(spot.field));
        }}
        onKeyDown={(event) => {
          const next = moved(event.key, at ?? { record: 0, field: -1 }, preview);
          if (!next) return;
          event.preventDefault();
          setAt(next);
        }}
      >
        <div className="text-faint" aria-hidden>
          {ruler}
        </div>
        {records.map((record, r) => (
          <div key={r}>
            {record.ends.map((end, f) => (
              <span
                key={f}
                data-record={r}
                data-field={f}
                className={
                  chosen && record.kind === chosen.kind && f === at.field
                    ? r === at.record
                      ? "bg-harbour text-sheet"
                      : "bg-cursor"
                    : meant && record.kind === meant.record && f === meant.field
                      ? "bg-cursor"
                      : ""
                }
              >
                {record.text.slice(f === 0 ? 0 : record.ends[f - 1], end)}
              </span>
            ))}
          </div>
        ))}
      </div>
      <p className="text-faint mt-2 text-note" aria-live="polite">
        {chosen ? (
          <>
            <b className="text-ink">{kinds[chosen.kind]?.fields[at.field]}</b>, characters{" "}
            {(at.field === 0 ? 0 : chosen.ends[at.field - 1]!) + 1} to {chosen.ends[at.field]} of the{" "}
            {kinds[chosen.kind]?.words}.
          </>
        ) : (
          "Point at a character, or use the arrows: its field is named here."
        )}{" "}
        {records.length < preview.recordCount &&
          `These are the first ${records.length} of ${preview.recordCount} records. `}
        The serial number is given when the file is made; the account number is masked here.
      </p>
    </>
  );
}

/** The field an arrow leads to; nothing for any other key. */
function moved(key: string, at: Spot, { records }: Preview): Spot | undefined {
  const fields = (record: number) => records[record]?.ends.length ?? 0;
  const record = Math.min(
    Math.max(at.record + (key === "ArrowDown" ? 1 : key === "ArrowUp" ? -1 : 0), 0),
    records.length - 1,
  );
  if (key === "ArrowDown" || key === "ArrowUp")
    return { record, field: Math.min(Math.max(at.field, 0), fields(record) - 1) };
  if (key === "ArrowRight") return { record, field: Math.min(at.field + 1, fields(record) - 1) };
  if (key === "ArrowLeft") return { record, field: Math.max(at.field - 1, 0) };
  return undefined;
}
