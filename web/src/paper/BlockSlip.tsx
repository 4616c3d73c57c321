import { useState } from "react";
import { Button } from "../parts/Button";
import { Field } from "../parts/Field";
import { shown, typed, type Block, type Unit } from "./measures";

const FACES = { TEXT: "ordinary", BOLD: "bold", MONO: "even" } as const;
const ALIGNS = { LEFT: "from its left edge", CENTER: "in its middle", RIGHT: "to its right edge" } as const;

/** Where the chosen block stands, how large it is and how it is set, to be typed instead of pulled. */
export function BlockSlip({
  block,
  name,
  unit,
  findings,
  change,
  remove,
}: {
  block: Block;
  name: string;
  unit: Unit;
  findings: string[];
  change: (change: Partial<Block>) => void;
  remove: () => void;
}) {
  return (
    <section aria-label={`The ${name}`} className="flex flex-col gap-3">
      <h2 className="text-base font-bold first-letter:uppercase">{name}</h2>
      {findings.map((words) => (
        <p key={words} className="callout-wrong">
          {words}
        </p>
      ))}
      <div className="grid grid-cols-2 gap-3">
        <Measure label="From the left" unit={unit} value={block.x} onLength={(x) => change({ x })} />
        <Measure label="From the top" unit={unit} value={block.y} onLength={(y) => change({ y })} />
        <Measure label="Wide" unit={unit} value={block.width} onLength={(width) => change({ width })} />
        <Measure label="High" unit={unit} value={block.height} onLength={(height) => change({ height })} />
      </div>
      {block.says !== "SIGNATURE" && (
        <div className="grid grid-cols-2 gap-3">
          <Field label="Letters, in points" small>
            <select value={block.size} onChange={(event) => change({ size: Number(event.target.value) })}>
              {sizes(block.size).map((size) => (
                <option key={size}>{size}</option>
              ))}
            </select>
          </Field>
          <Field label="Letters" small>
            <select
              value={block.face}
              onChange={(event) => change({ face: event.target.value as Block["face"] })}
            >
              {Object.entries(FACES).map(([face, words]) => (
                <option key={face} value={face}>
                  {words}
                </option>
              ))}
            </select>
          </Field>
          <Field label="It runs" small className="col-span-2">
            <select
              value={block.align}
              onChange={(event) => change({ align: event.target.value as Block["align"] })}
            >
              {Object.entries(ALIGNS).map(([align, words]) => (
                <option key={align} value={align}>
                  {words}
                </option>
              ))}
            </select>
          </Field>
        </div>
      )}
      {block.says === "TEXT" && (
        <Field label="It says" small>
          <textarea
            rows={2}
            maxLength={200}
            value={block.text}
            onChange={(event) => change({ text: event.target.value })}
          />
        </Field>
      )}
      <Button className="self-start" onClick={remove}>
        Take it off
      </Button>
    </section>
  );
}

function sizes(own: number): number[] {
  const usual = [7, 7.5, 8, 8.5, 9, 9.5, 10, 11, 12, 13, 14, 16, 18, 20, 24];
  return usual.includes(own) ? usual : [...usual, own].sort((a, b) => a - b);
}

/** A length in the unit people measure in; what is no length stays in the field until it is one. */
function Measure({
  label,
  unit,
  value,
  onLength,
}: {
  label: string;
  unit: Unit;
  value: number;
  onLength: (millimetres: number) => void;
}) {
  const [text, setText] = useState<string>();
  const wrong = text !== undefined && typed(text, unit) === undefined;
  return (
    <Field
      label={`${label}, ${unit.name}`}
      small
      finding={wrong ? "Type a number, such as 12.5." : undefined}
    >
      <input
        inputMode="decimal"
        className="w-full text-right"
        aria-invalid={wrong || undefined}
        value={text ?? shown(value, unit)}
        onChange={(event) => {
          setText(event.target.value);
          const length = typed(event.target.value, unit);
          if (length !== undefined) onLength(length);
        }}
        onBlur={() => {
          if (!wrong) setText(undefined);
        }}
      />
    </Field>
  );
}
