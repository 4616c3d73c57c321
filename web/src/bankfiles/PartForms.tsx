import { Button } from "../parts/Button";
import { Line, Pick, Tick, type Given } from "./LayoutControls";
import { moved, newField, withRecord, type LayoutText, type Place } from "./layoutText";

/** What the file is, whatever its records hold. */
export function FileForm({ layout, onChange, readOnly }: Given) {
  const set = (change: Partial<LayoutText>) => onChange({ ...layout, ...change });
  const delimited = layout.separator !== "";
  return (
    <fieldset disabled={readOnly} className="flex flex-col gap-3">
      <h2 className="font-semibold">The file</h2>
      <Line label="Name of the layout" value={layout.name} onChange={(name) => set({ name })} />
      {layout.use === "POSITIVE_PAY" && (
        <Line
          label="How files are called, with {account}, {date:yyyyMMdd}, {serial:6}"
          look="font-mono"
          value={layout.fileName}
          onChange={(fileName) => set({ fileName })}
        />
      )}
      <div className="grid grid-cols-2 gap-3">
        <Line label="Encoding" value={layout.encoding} onChange={(encoding) => set({ encoding })} />
        <Pick
          label="A record ends with"
          value={layout.lineEnd}
          choices={[
            ["CRLF", "CR LF"],
            ["LF", "LF"],
            ["CR", "CR"],
            ["NONE", "nothing: all of one length"],
          ]}
          onChange={(lineEnd) => set({ lineEnd })}
        />
        <Pick
          label="Fields"
          value={delimited ? "between" : "columns"}
          choices={[
            ["columns", "stand in columns"],
            ["between", "have something between them"],
          ]}
          onChange={(how) =>
            set(how === "columns" ? { separator: "" } : { separator: ",", quote: layout.quote || '"' })
          }
        />
        {delimited && (
          <>
            <Line
              label="Between them"
              look="font-mono w-16"
              value={layout.separator === "\t" ? "\\t" : layout.separator}
              onChange={(separator) => set({ separator: separator === "\\t" ? "\t" : separator.slice(0, 1) })}
            />
            <Line
              label="Quote"
              look="font-mono w-16"
              value={layout.quote}
              onChange={(quote) => set({ quote: quote.slice(0, 1) })}
            />
            <Pick
              label="Quoted are"
              value={layout.quoting}
              choices={[
                ["NEVER", "none"],
                ["WHERE_NEEDED", "those that need it"],
                ["TEXTS", "texts"],
                ["ALWAYS", "all"],
              ]}
              onChange={(quoting) => set({ quoting })}
            />
            <Pick
              label="A quote within one"
              value={layout.escape}
              choices={[
                ["NONE", "cannot be written"],
                ["DOUBLED", "is doubled"],
                ["BACKSLASH", "has a backslash before it"],
              ]}
              onChange={(escape) => set({ escape })}
            />
          </>
        )}
      </div>
      <Tick
        label="A byte order mark stands first"
        value={layout.byteOrderMark}
        onChange={(byteOrderMark) => set({ byteOrderMark })}
      />
      {!readOnly && (
        <Button
          onClick={() =>
            onChange({
              ...layout,
              records: [
                ...layout.records,
                { place: "TRAILER", tells: "BOTH", fields: [newField([], layout.separator === "")] },
              ],
            })
          }
        >
          Add a record
        </Button>
      )}
    </fieldset>
  );
}

/** A record as a whole. */
export function RecordForm({
  layout,
  onChange,
  readOnly,
  at,
  onAt,
}: Given & { at: Place; onAt: (at: Place) => void }) {
  const record = layout.records[at.record]!;
  const go = (by: number) => {
    onChange({ ...layout, records: moved(layout.records, at.record, by) });
    onAt({ record: Math.min(Math.max(at.record + by, 0), layout.records.length - 1), field: -1 });
  };
  return (
    <fieldset disabled={readOnly} className="flex flex-col gap-3">
      <h2 className="font-semibold">Record {at.record + 1}</h2>
      <Pick
        label="It stands"
        value={record.place}
        choices={[
          ["HEADER", "before the details"],
          ["DETAIL", "for each check: a detail"],
          ["TRAILER", "behind the details"],
        ]}
        onChange={(place) => onChange(withRecord(layout, at.record, (one) => ({ ...one, place })))}
      />
      {record.place === "DETAIL" && layout.use === "POSITIVE_PAY" && (
        <Pick
          label="It tells"
          value={record.tells}
          choices={[
            ["BOTH", "of issues and voids"],
            ["ISSUES", "of issues only"],
            ["VOIDS", "of voids only"],
          ]}
          onChange={(tells) => onChange(withRecord(layout, at.record, (one) => ({ ...one, tells })))}
        />
      )}
      {!readOnly && (
        <div className="flex flex-wrap gap-2">
          <Button
            onClick={() => {
              const field = newField(
                record.fields.map((one) => one.name),
                layout.separator === "",
              );
              onChange(withRecord(layout, at.record, (one) => ({ ...one, fields: [...one.fields, field] })));
              onAt({ record: at.record, field: record.fields.length });
            }}
          >
            Add a field
          </Button>
          <Button onClick={() => go(-1)}>Up</Button>
          <Button onClick={() => go(1)}>Down</Button>
          <Button
            onClick={() => {
              onChange({ ...layout, records: layout.records.filter((_, i) => i !== at.record) });
              onAt({ record: -1, field: -1 });
            }}
          >
            Take it out
          </Button>
        </div>
      )}
    </fieldset>
  );
}
