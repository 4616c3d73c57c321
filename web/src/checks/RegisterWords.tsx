import { useState } from "react";
import type { Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { ChoiceWord, DayWord, Word } from "../parts/Word";

type Values = Record<string, string | undefined>;
type Change = (next: Values) => void;
type Series = Schemas["SeriesView"];

const STATES = [
  { value: "", text: "every state" },
  { value: "OUTSTANDING", text: "outstanding" },
  { value: "STOPPED", text: "stopped" },
  { value: "CLEARED", text: "cleared" },
  { value: "VOIDED", text: "voided" },
  { value: "SPOILED", text: "spoiled" },
  { value: "UNACCOUNTED", text: "unaccounted" },
  { value: "TAKEN", text: "taken" },
  { value: "PRINTED", text: "printed" },
];
const AGES = ["30", "60", "90", "180", "365"];

/** The account's name says which series, as long as it has one. */
export function nameOf(series: Series, all: Series[]): string {
  const alone = all.filter((s) => s.bankAccount === series.bankAccount).length === 1;
  return alone ? series.account : `${series.account}, ${series.name}`;
}

/** Which numbers the register lists: whose, in which state, with which words, amounts, dates and age. */
export function RegisterWords({
  all,
  series,
  values,
  sorted,
  change,
}: {
  all: Series[];
  /** None: every series. */
  series?: Series;
  values: Values;
  sorted: boolean;
  change: Change;
}) {
  const narrow = (next: Values) => change({ ...next, check: undefined });
  const state = STATES.find((one) => one.value === (values.state ?? "")) ?? STATES[0]!;
  return (
    <>
      Check numbers of{" "}
      <ChoiceWord
        name="Series"
        text={series ? nameOf(series, all) : "every account"}
        value={series ? String(series.id) : "all"}
        choices={[
          ...all.map((s) => ({ value: String(s.id), text: nameOf(s, all), detail: s.name })),
          { value: "all", text: "every account" },
        ]}
        onChange={(id) => narrow({ series: id })}
      />
      {sorted ? "" : ", newest first"}, in{" "}
      <ChoiceWord
        name="State"
        text={state.text}
        value={state.value}
        choices={STATES}
        onChange={(value) => narrow({ state: value || undefined })}
      />
      , with <TextWord text={values.text} onChange={(text) => narrow({ text })} />, of{" "}
      <AmountWord values={values} change={narrow} />, dated from{" "}
      <DayWord
        name="From"
        text={values.from ? longDate(values.from) : "the beginning"}
        value={values.from ?? ""}
        none="From the beginning"
        onChange={(from) => narrow({ from })}
      />{" "}
      to{" "}
      <DayWord
        name="To"
        text={values.to ? longDate(values.to) : "now"}
        value={values.to ?? ""}
        none="To now"
        onChange={(to) => narrow({ to })}
      />
      , of{" "}
      <ChoiceWord
        name="Age"
        text={values.older ? `more than ${values.older} days` : "any age"}
        value={values.older ?? ""}
        choices={[
          { value: "", text: "any age" },
          ...AGES.map((days) => ({ value: days, text: `more than ${days} days` })),
        ]}
        onChange={(days) => narrow({ older: days || undefined })}
      />
      .
    </>
  );
}

function TextWord({ text, onChange }: { text?: string; onChange: (text: string | undefined) => void }) {
  return (
    <Word name="Words" text={text ? `“${text}”` : "any words"}>
      {(close) => (
        <TextForm
          text={text}
          onChange={(next) => {
            onChange(next);
            close();
          }}
        />
      )}
    </Word>
  );
}

function TextForm({ text, onChange }: { text?: string; onChange: (text: string | undefined) => void }) {
  const [typed, setTyped] = useState(text ?? "");
  return (
    <form
      className="flex w-80 flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onChange(typed.trim() || undefined);
      }}
    >
      <input
        aria-label="Words it holds"
        autoFocus
        maxLength={120}
        placeholder="rigging 415.80"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      <span className="text-faint text-note">
        A number, a payee, a batch, a reference it pays, an amount: several words are all held.
      </span>
      <div className="flex gap-2">
        <Button type="submit" look="deed">
          Find
        </Button>
        {text && <Button onClick={() => onChange(undefined)}>Any words</Button>}
      </div>
    </form>
  );
}

function AmountWord({ values, change }: { values: Values; change: Change }) {
  const { least, most } = values;
  const text =
    least && most
      ? `${least} to ${most}`
      : least
        ? `${least} or more`
        : most
          ? `up to ${most}`
          : "any amount";
  return (
    <Word name="Amount" text={text}>
      {(close) => (
        <form
          className="flex w-72 flex-col gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            const data = new FormData(event.currentTarget);
            const typed = (name: string) => String(data.get(name) ?? "").trim() || undefined;
            change({ least: typed("least"), most: typed("most") });
            close();
          }}
        >
          <label className="flex items-center justify-between gap-2">
            From
            <input
              name="least"
              inputMode="decimal"
              className="w-40 text-right"
              defaultValue={least}
              autoFocus
            />
          </label>
          <label className="flex items-center justify-between gap-2">
            To
            <input name="most" inputMode="decimal" className="w-40 text-right" defaultValue={most} />
          </label>
          <Button type="submit" look="deed" className="self-start">
            Use these
          </Button>
        </form>
      )}
    </Word>
  );
}
