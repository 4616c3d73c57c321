import type { Schemas } from "../api/client";
import { Word } from "../parts/Word";
import { shown, typed, UNITS, type Layout, type Unit } from "./measures";

interface Choice<V> {
  value: V;
  words: string;
}

const PAGES: Choice<Layout["page"]>[] = [
  { value: "LETTER", words: "Letter" },
  { value: "A4", words: "A4" },
];
const PLACES: Choice<Layout["place"]>[] = [
  { value: "TOP", words: "on top" },
  { value: "MIDDLE", words: "in the middle" },
  { value: "BOTTOM", words: "at the bottom" },
];
const STUBS: Choice<number>[] = [
  { value: 0, words: "no stub" },
  { value: 1, words: "one stub" },
  { value: 2, words: "two stubs" },
];

/** A word that opens its few choices. */
function ChoiceWord<V extends string | number>({
  name,
  choices,
  value,
  onChoose,
}: {
  name: string;
  choices: Choice<V>[];
  value: V;
  onChoose: (value: V) => void;
}) {
  return (
    <Word name={name} text={choices.find((one) => one.value === value)?.words ?? String(value)}>
      {(close) => (
        <ul>
          {choices.map((one) => (
            <li key={one.value}>
              <button
                type="button"
                aria-pressed={one.value === value}
                className={`hover:bg-cursor min-h-8 w-full px-1 text-left ${one.value === value ? "font-bold" : ""}`}
                onClick={() => {
                  onChoose(one.value);
                  close();
                }}
              >
                {one.words}
              </button>
            </li>
          ))}
        </ul>
      )}
    </Word>
  );
}

/** The sentence over a layout: the sheet, where the check stands on it, and what it is seen with. */
export function LayoutWords({
  page,
  layout,
  unit,
  sample,
  change,
  setUnit,
  setSample,
}: {
  page: Schemas["LayoutPage"];
  layout: Layout;
  unit: Unit;
  sample: string;
  change: (next: Layout) => void;
  setUnit: (name: Unit["name"]) => void;
  setSample: (sample: string) => void;
}) {
  const of = (choices: { value: string; words: string }[]) =>
    choices.map(({ value, words }) => ({ value, words }));
  return (
    <>
      Checks of <b>{page.name}</b> on{" "}
      <ChoiceWord
        name="Sheet"
        choices={PAGES}
        value={layout.page}
        onChoose={(value) => change({ ...layout, page: value })}
      />
      , the check{" "}
      <ChoiceWord
        name="Place of the check"
        choices={PLACES}
        value={layout.place}
        onChoose={(place) => change({ ...layout, place })}
      />
      ,{" "}
      <Word name="Height of the check" text={`${shown(layout.checkHeight, unit)} ${unit.name}`}>
        {(close) => <Height layout={layout} unit={unit} change={change} close={close} />}
      </Word>{" "}
      high, with{" "}
      <ChoiceWord
        name="Stubs"
        choices={STUBS}
        value={layout.stubs}
        onChoose={(stubs) => change({ ...layout, stubs })}
      />
      , dates like{" "}
      <ChoiceWord
        name="Dates"
        choices={of(page.dates)}
        value={layout.dates as string}
        onChoose={(dates) => change({ ...layout, dates: dates as Layout["dates"] })}
      />
      ; seen with{" "}
      <ChoiceWord name="Seen with" choices={of(page.samples)} value={sample} onChoose={setSample} />, measured
      in{" "}
      <ChoiceWord
        name="Unit"
        choices={Object.values(UNITS).map(({ name }) => ({
          value: name,
          words: name === "mm" ? "mm" : "inches",
        }))}
        value={unit.name}
        onChoose={setUnit}
      />
      .
    </>
  );
}

function Height({
  layout,
  unit,
  change,
  close,
}: {
  layout: Layout;
  unit: Unit;
  change: (next: Layout) => void;
  close: () => void;
}) {
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const height = typed(String(new FormData(event.currentTarget).get("height")), unit);
        if (height !== undefined && height > 0) {
          change({ ...layout, checkHeight: height });
          close();
        }
      }}
    >
      <label className="flex flex-col gap-1">
        <span className="text-faint text-note">To the perforation, in {unit.name}</span>
        <input
          name="height"
          inputMode="decimal"
          autoFocus
          className="w-28 text-right"
          defaultValue={shown(layout.checkHeight, unit)}
        />
      </label>
      <button className="bg-harbour text-onharbour min-h-8 px-3 font-bold">Set it</button>
    </form>
  );
}
