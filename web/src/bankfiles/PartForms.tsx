import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call } from "../api/client";
import { Button } from "../parts/Button";
import { Field } from "../parts/Field";
import { useRest } from "../parts/useRest";
import {
  asLines,
  form,
  fromLines,
  moved,
  newField,
  sources,
  withField,
  withRecord,
  words,
  written,
  type FieldText,
  type LayoutText,
  type Place,
} from "./layoutText";

interface Given {
  layout: LayoutText;
  onChange: (next: LayoutText) => void;
  readOnly: boolean;
}

function Line({
  label,
  value,
  onChange,
  look = "",
  rows,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  look?: string;
  rows?: number;
}) {
  return (
    <Field label={label} small>
      {rows ? (
        <textarea rows={rows} className={look} value={value} onChange={(e) => onChange(e.target.value)} />
      ) : (
        <input className={look} autoComplete="off" value={value} onChange={(e) => onChange(e.target.value)} />
      )}
    </Field>
  );
}

function Pick({
  label,
  value,
  choices,
  onChange,
}: {
  label: string;
  value: string;
  choices: [string, string][];
  onChange: (value: string) => void;
}) {
  return (
    <Field label={label} small>
      <select value={value} onChange={(e) => onChange(e.target.value)}>
        {choices.map(([of, text]) => (
          <option key={of} value={of}>
            {text}
          </option>
        ))}
      </select>
    </Field>
  );
}

function Tick({
  label,
  value,
  onChange,
}: {
  label: string;
  value: boolean;
  onChange: (value: boolean) => void;
}) {
  return (
    <label className="flex min-h-7 items-center gap-2">
      <input
        type="checkbox"
        className="min-h-0"
        checked={value}
        onChange={(e) => onChange(e.target.checked)}
      />
      {label}
    </label>
  );
}

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

/** One field, part by part, and what it makes of a value. */
export function FieldForm({
  layout,
  onChange,
  readOnly,
  at,
  onAt,
  account,
}: Given & { at: Place; onAt: (at: Place) => void; account: number }) {
  const record = layout.records[at.record]!;
  const field = record.fields[at.field]!;
  const set = (change: Partial<FieldText>) => onChange(withField(layout, at, change));
  const kind = form(field.source);
  const delimited = layout.separator !== "";
  const go = (by: number) => {
    onChange(withRecord(layout, at.record, (one) => ({ ...one, fields: moved(one.fields, at.field, by) })));
    onAt({ ...at, field: Math.min(Math.max(at.field + by, 0), record.fields.length - 1) });
  };
  return (
    <div className="flex flex-col gap-3">
      <h2 className="font-semibold">Field {at.field + 1}</h2>
      <fieldset disabled={readOnly} className="flex flex-col gap-3">
        <Line label="Name" value={field.name} onChange={(name) => set({ name })} />
        <Pick
          label="What it holds"
          value={field.source}
          choices={sources(layout, record, field.source).map((one) => [one, words(one)])}
          onChange={(source) => set({ source })}
        />
        {(field.source === "CONSTANT" || kind === "day") && (
          <Line
            label={kind === "day" ? "Day, such as yyyyMMdd or MM/dd/yy" : "Text"}
            look="font-mono"
            value={field.value}
            onChange={(value) => set({ value })}
          />
        )}
        <div className="grid grid-cols-2 gap-3">
          <Line
            label={delimited ? "At most; 0 for any" : "Width"}
            value={String(field.width)}
            onChange={(width) => set({ width: Number(width.replace(/\D/g, "")) })}
          />
          <Pick
            label="Stands"
            value={field.align}
            choices={[
              ["LEFT", "left"],
              ["RIGHT", "right"],
            ]}
            onChange={(align) => set({ align })}
          />
          <Line
            label="Filled with"
            look="font-mono w-16"
            value={field.fill}
            onChange={(fill) => set({ fill: fill.slice(-1) || " " })}
          />
          <Pick
            label="Letters"
            value={field.letters}
            choices={[
              ["AS_THEY_ARE", "as they are"],
              ["UPPER", "large"],
              ["LOWER", "small"],
            ]}
            onChange={(letters) => set({ letters })}
          />
          {kind === "amount" && (
            <>
              <Pick
                label="Decimals"
                value={field.decimals}
                choices={[
                  ["POINT", "1225.00"],
                  ["COMMA", "1225,00"],
                  ["IMPLIED", "122500"],
                ]}
                onChange={(decimals) => set({ decimals })}
              />
              <Pick
                label="Sign"
                value={field.sign}
                choices={["NONE", "LEADING", "TRAILING", "LEADING_ALWAYS", "TRAILING_ALWAYS"].map((one) => [
                  one,
                  words(one),
                ])}
                onChange={(sign) => set({ sign })}
              />
            </>
          )}
        </div>
        <Tick label="Cut where it is too long" value={field.cut} onChange={(cut) => set({ cut })} />
        <Lines
          key={`s ${at.record} ${at.field}`}
          label="Written as others, a line each, such as ISSUE = I"
          values={field.substitutions.values}
          onChange={(values) => set({ substitutions: { ...field.substitutions, values } })}
        />
        <Missing
          label="What has none"
          value={field.substitutions.missing}
          other={field.substitutions.other}
          choices={[
            ["STAYS", "stays as it is"],
            ["REFUSED", "is refused"],
            ["OTHER", "becomes…"],
          ]}
          onChange={(missing, other) => set({ substitutions: { ...field.substitutions, missing, other } })}
        />
        <Line
          label="Characters it takes, such as A-Z0-9 .-; empty for all"
          look="font-mono"
          value={field.characters.allowed}
          onChange={(allowed) => set({ characters: { ...field.characters, allowed } })}
        />
        <Lines
          key={`c ${at.record} ${at.field}`}
          label="Single ones replaced, such as & = +"
          values={field.characters.replaced}
          onChange={(replaced) => set({ characters: { ...field.characters, replaced } })}
        />
        <Missing
          label="Any other"
          value={field.characters.beyond}
          other={field.characters.other}
          choices={[
            ["REFUSED", "is refused"],
            ["LEFT_OUT", "is left out"],
            ["OTHER", "becomes…"],
          ]}
          onChange={(beyond, other) => set({ characters: { ...field.characters, beyond, other } })}
        />
        {!readOnly && (
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => go(-1)}>Up</Button>
            <Button onClick={() => go(1)}>Down</Button>
            <Button
              onClick={() => {
                onChange(
                  withRecord(layout, at.record, (one) => ({
                    ...one,
                    fields: one.fields.filter((_, i) => i !== at.field),
                  })),
                );
                onAt({ record: at.record, field: Math.min(at.field, record.fields.length - 2) });
              }}
            >
              Take it out
            </Button>
          </div>
        )}
      </fieldset>
      <TryOut layout={layout} at={at} account={account} />
    </div>
  );
}

/** What stands for what, typed a line each; a line that is not finished changes nothing yet. */
function Lines({
  label,
  values,
  onChange,
}: {
  label: string;
  values: Record<string, string>;
  onChange: (values: Record<string, string>) => void;
}) {
  const [typed, setTyped] = useState(() => asLines(values));
  return (
    <Line
      label={label}
      rows={2}
      look="font-mono"
      value={typed}
      onChange={(lines) => {
        setTyped(lines);
        onChange(fromLines(lines));
      }}
    />
  );
}

function Missing({
  label,
  value,
  other,
  choices,
  onChange,
}: {
  label: string;
  value: string;
  other: string;
  choices: [string, string][];
  onChange: (value: string, other: string) => void;
}) {
  return (
    <div className="grid grid-cols-2 gap-3">
      <Pick label={label} value={value} choices={choices} onChange={(next) => onChange(next, other)} />
      {value === "OTHER" && (
        <Line label="It becomes" look="font-mono" value={other} onChange={(next) => onChange(value, next)} />
      )}
    </div>
  );
}

function TryOut({ layout, at, account }: { layout: LayoutText; at: Place; account: number }) {
  const [value, setValue] = useState("");
  const text = useRest(written(layout));
  const tried = useQuery({
    queryKey: ["bank-field-tried", text, at.record, at.field, value],
    enabled: value !== "",
    retry: false,
    queryFn: () =>
      call(
        api.POST("/api/bank-layouts/try-field", {
          body: { text, account, record: at.record + 1, field: at.field + 1, value },
        }),
      ),
  });
  return (
    <section aria-label="What a value becomes" className="border-hair flex flex-col gap-1 border-t pt-3">
      <Line label="Try a value" value={value} onChange={setValue} />
      {value !== "" && tried.error && (
        <p role="alert" className="text-rust text-note">
          {tried.error.message}
        </p>
      )}
      {value !== "" && tried.data && (
        <>
          <p>
            It writes{" "}
            <span className="bg-paper border-hair border px-1 font-mono whitespace-pre">
              {tried.data.written}
            </span>
          </p>
          {tried.data.findings.map((one, i) => (
            <p key={i} role="alert" className="text-rust text-note">
              {one}
            </p>
          ))}
        </>
      )}
    </section>
  );
}
