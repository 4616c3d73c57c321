import type { Schemas } from "../api/client";
import { columns, inShort, words, type LayoutText, type Place } from "./layoutText";

type Preview = Schemas["PreviewView"];

const TELLS: Record<string, string> = { ISSUES: ", of issues", VOIDS: ", of voids" };

/** The records of a layout and their fields, one in a row; what is chosen is changed beside it. */
export function LayoutTable({
  layout,
  preview,
  wrong,
  at,
  onAt,
}: {
  layout: LayoutText;
  preview: Preview | null | undefined;
  wrong: Schemas["WrongPart"][];
  at: Place;
  onAt: (at: Place) => void;
}) {
  const fixed = layout.separator === "";
  return (
    <table className="w-full border-collapse text-left" aria-label="The fields">
      <thead className="bg-paper text-faint text-note sticky top-0">
        <tr>
          <th className="px-3 py-1 font-semibold">Field</th>
          <th className="px-2 py-1 font-semibold">What it holds</th>
          <th className="px-2 py-1 text-right font-semibold">{fixed ? "Columns" : "At most"}</th>
          <th className="px-2 py-1 font-semibold">How</th>
          <th className="px-2 py-1 font-semibold">It writes</th>
        </tr>
      </thead>
      {layout.records.map((record, r) => {
        const places = columns(record);
        const laid = preview?.records.find((one) => one.kind === r);
        return (
          <tbody key={r}>
            <Row
              chosen={at.record === r && at.field < 0}
              wrong={wrong.some((w) => w.record === r + 1 && w.field === 0)}
            >
              <td colSpan={5} className="px-3 py-1">
                <button
                  className="min-h-6 font-bold"
                  aria-current={at.record === r && at.field < 0}
                  onClick={() => onAt({ record: r, field: -1 })}
                >
                  {words(record.place).replace(/^./, (first) => first.toUpperCase())}
                  {TELLS[record.tells] ?? ""}
                </button>
                <span className="text-faint text-note">
                  {" "}
                  {record.fields.length} fields
                  {fixed && `, ${places.at(-1)?.[1] ?? 0} characters`}
                </span>
              </td>
            </Row>
            {record.fields.map((field, f) => (
              <Row
                key={f}
                chosen={at.record === r && at.field === f}
                wrong={wrong.some((w) => w.record === r + 1 && w.field === f + 1)}
              >
                <td className="px-3">
                  <button
                    className="min-h-6 text-left"
                    aria-current={at.record === r && at.field === f}
                    onClick={() => onAt({ record: r, field: f })}
                  >
                    {field.name}
                  </button>
                </td>
                <td className="px-2">{words(field.source)}</td>
                <td className="px-2 text-right whitespace-nowrap">
                  {fixed ? `${places[f]![0]}–${places[f]![1]}` : field.width || "any"}
                </td>
                <td className="text-faint px-2">{inShort(field)}</td>
                <td className="max-w-48 truncate px-2 font-mono text-note whitespace-pre">
                  {laid &&
                    laid.text
                      .slice(f === 0 ? 0 : laid.ends[f - 1]! + (fixed ? 0 : 1), laid.ends[f])
                      .trimEnd()}
                </td>
              </Row>
            ))}
          </tbody>
        );
      })}
    </table>
  );
}

function Row({ chosen, wrong, children }: { chosen: boolean; wrong: boolean; children: React.ReactNode }) {
  return (
    <tr className={`border-hair border-t ${chosen ? "bg-cursor" : ""} ${wrong ? "text-rust" : ""}`}>
      {children}
    </tr>
  );
}
