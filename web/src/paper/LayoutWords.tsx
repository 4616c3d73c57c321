import type { Schemas } from "../api/client";
import { ChoiceWord, Word } from "../parts/Word";
import { shown, typed, type Layout, type Unit } from "./measures";

const PAGES = [
  { value: "LETTER", text: "Letter" },
  { value: "A4", text: "A4" },
];
const PLACES = [
  { value: "TOP", text: "on top" },
  { value: "MIDDLE", text: "in the middle" },
  { value: "BOTTOM", text: "at the bottom" },
];
const STUBS = [
  { value: "0", text: "no stub" },
  { value: "1", text: "one stub" },
  { value: "2", text: "two stubs" },
];
const MEASURES = [
  { value: "mm", text: "mm" },
  { value: "in", text: "inches" },
];

type Choices = { value: string; text: string }[];

/** A word of the sentence that says what is chosen and opens the choices. */
function Chosen({
  name,
  choices,
  value,
  choose,
}: {
  name: string;
  choices: Choices;
  value: string;
  choose: (value: string) => void;
}) {
  const text = choices.find((one) => one.value === value)?.text ?? value;
  return <ChoiceWord name={name} text={text} choices={choices} value={value} onChange={choose} />;
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
  const worded = (choices: { value: string; words: string }[]): Choices =>
    choices.map(({ value, words }) => ({ value, text: words }));
  return (
    <>
      Checks of <b>{page.name}</b> on{" "}
      <Chosen
        name="Sheet"
        choices={PAGES}
        value={layout.page}
        choose={(size) => change({ ...layout, page: size as Layout["page"] })}
      />
      , the check{" "}
      <Chosen
        name="Place of the check"
        choices={PLACES}
        value={layout.place}
        choose={(place) => change({ ...layout, place: place as Layout["place"] })}
      />
      ,{" "}
      <Word name="Height of the check" text={`${shown(layout.checkHeight, unit)} ${unit.name}`}>
        {(close) => <Height layout={layout} unit={unit} change={change} close={close} />}
      </Word>{" "}
      high, with{" "}
      <Chosen
        name="Stubs"
        choices={STUBS}
        value={String(layout.stubs)}
        choose={(stubs) => change({ ...layout, stubs: Number(stubs) })}
      />
      , dates like{" "}
      <Chosen
        name="Dates"
        choices={worded(page.dates)}
        value={layout.dates}
        choose={(dates) => change({ ...layout, dates: dates as Layout["dates"] })}
      />
      ; seen with <Chosen name="Seen with" choices={worded(page.samples)} value={sample} choose={setSample} />
      , measured in{" "}
      <Chosen
        name="Unit"
        choices={MEASURES}
        value={unit.name}
        choose={(name) => setUnit(name as Unit["name"])}
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
