import { Field } from "../parts/Field";
import type { LayoutText } from "./layoutText";

/** What each form of a layout is given. */
export interface Given {
  layout: LayoutText;
  onChange: (next: LayoutText) => void;
  readOnly: boolean;
}

export function Line({
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

export function Pick({
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

export function Tick({
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
