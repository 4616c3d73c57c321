import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call } from "../api/client";
import { Button } from "../parts/Button";
import { useRest } from "../parts/useRest";
import { Line, Pick, Tick, type Given } from "./LayoutControls";
import {
  asLines,
  form,
  fromLines,
  moved,
  sources,
  withField,
  withRecord,
  words,
  written,
  type FieldText,
  type LayoutText,
  type Place,
} from "./layoutText";

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
