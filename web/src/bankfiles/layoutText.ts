/** A layout as its text says it: the parts that docs/formats.md describes. The server says what is wrong with it. */
export interface LayoutText {
  format: string;
  name: string;
  use: string;
  encoding: string;
  byteOrderMark: boolean;
  lineEnd: string;
  separator: string;
  quote: string;
  quoting: string;
  escape: string;
  fileName: string;
  records: RecordText[];
}

export interface RecordText {
  place: string;
  tells: string;
  fields: FieldText[];
}

export interface FieldText {
  name: string;
  source: string;
  value: string;
  width: number;
  align: string;
  fill: string;
  cut: boolean;
  letters: string;
  decimals: string;
  sign: string;
  substitutions: { values: Record<string, string>; missing: string; other: string };
  characters: { allowed: string; replaced: Record<string, string>; beyond: string; other: string };
}

/** Where something stands in a layout, counted from 0; -1 for the file, or for the record as a whole. */
export interface Place {
  record: number;
  field: number;
}

/** Undefined where the text is none that can be shown as a table. */
export function parsed(text: string): LayoutText | undefined {
  try {
    const layout = JSON.parse(text) as LayoutText;
    const whole =
      Array.isArray(layout.records) &&
      layout.records.every(
        (record) =>
          Array.isArray(record.fields) &&
          record.fields.every(
            (field) => field && typeof field === "object" && field.substitutions && field.characters,
          ),
      );
    return whole ? layout : undefined;
  } catch {
    return undefined;
  }
}

export const written = (layout: LayoutText) => `${JSON.stringify(layout, null, 2)}\n`;

export const words = (name: string) => name.toLowerCase().replaceAll("_", " ");

/** What a field can hold, by what a file is for. */
const OF_EVENTS = [
  "KIND",
  "NUMBER",
  "NUMBER_AS_PRINTED",
  "AMOUNT",
  "CHECK_DATE",
  "EVENT_DATE",
  "PAYEE",
  "PAYEE_GOES_ON",
  "ROW",
];
const OF_FILES = [
  "CONSTANT",
  "FILLER",
  "ACCOUNT_NUMBER",
  "ROUTING_NUMBER",
  "CURRENCY",
  "FILE_DATE",
  "FILE_SERIAL",
  "LIVE_OR_TEST",
  "RECORD_COUNT",
  "COUNT",
  "ISSUE_COUNT",
  "VOID_COUNT",
  "TOTAL",
  "ISSUE_TOTAL",
  "VOID_TOTAL",
  "HASH",
  "ISSUE_HASH",
  "VOID_HASH",
];
const READ_ONLY = {
  events: ["AMOUNT_OUT", "AMOUNT_IN", "TEXT", "REFERENCE", "BALANCE"],
  files: [
    "OPENING_BALANCE",
    "CLOSING_BALANCE",
    "FROM_DATE",
    "TO_DATE",
    "FILE_NAME",
    "FILE_ANSWER",
    "FILE_NOTE",
  ],
};

/** The sources of a record of this place; one the layout has already is among them, whatever it is. */
export function sources(layout: LayoutText, record: RecordText, has: string): string[] {
  const told = layout.use === "POSITIVE_PAY";
  const found = [
    ...OF_FILES,
    ...(told ? [] : READ_ONLY.files),
    ...(record.place === "DETAIL" ? [...OF_EVENTS, ...(told ? [] : READ_ONLY.events)] : []),
  ];
  return found.includes(has) ? found : [has, ...found];
}

/** What kind of value a source has, as far as its form depends on it. */
export function form(source: string): "amount" | "day" | "figure" | "text" {
  if (/(^|_)(AMOUNT|TOTAL|BALANCE)(_|$)/.test(source)) return "amount";
  if (/_DATE$/.test(source)) return "day";
  if (/^(NUMBER|ROW|FILE_SERIAL)$|(COUNT|HASH)$/.test(source)) return "figure";
  return "text";
}

/** The layout with a part of it changed. */
export function withField(layout: LayoutText, at: Place, change: Partial<FieldText>): LayoutText {
  return withRecord(layout, at.record, (record) => ({
    ...record,
    fields: record.fields.map((field, i) => (i === at.field ? { ...field, ...change } : field)),
  }));
}

export function withRecord(
  layout: LayoutText,
  at: number,
  change: (record: RecordText) => RecordText,
): LayoutText {
  return { ...layout, records: layout.records.map((record, i) => (i === at ? change(record) : record)) };
}

/** One of a list a place further up or down; the same list at its ends. */
export function moved<T>(list: T[], at: number, by: number): T[] {
  const to = at + by;
  if (to < 0 || to >= list.length) return list;
  const next = [...list];
  next.splice(to, 0, ...next.splice(at, 1));
  return next;
}

export function newField(taken: string[], fixed: boolean): FieldText {
  let name = "new field";
  for (let i = 2; taken.includes(name); i++) name = `new field ${i}`;
  return {
    name,
    source: "FILLER",
    value: "",
    width: fixed ? 1 : 0,
    align: "LEFT",
    fill: " ",
    cut: false,
    letters: "AS_THEY_ARE",
    decimals: "POINT",
    sign: "NONE",
    substitutions: { values: {}, missing: "STAYS", other: "" },
    characters: { allowed: "", replaced: {}, beyond: "REFUSED", other: "" },
  };
}

/** Lines such as `ISSUE = I`, for what stands for what. */
export const asLines = (values: Record<string, string>) =>
  Object.entries(values)
    .map(([of, other]) => `${of} = ${other}`)
    .join("\n");

export function fromLines(lines: string): Record<string, string> {
  const found: Record<string, string> = {};
  for (const line of lines.split("\n")) {
    const at = line.indexOf("=", 1);
    if (at > 0) found[line.slice(0, at).trim() || " "] = line.slice(at + 1).trim();
  }
  return found;
}

/** The characters a field stands in, counted from 1, where records have columns. */
export function columns(record: RecordText): [number, number][] {
  let at = 0;
  return record.fields.map((field) => {
    const from = at + 1;
    at += field.width;
    return [from, at];
  });
}

/** How a field is written, in a few words. */
export function inShort(field: FieldText): string {
  const parts: string[] = [];
  const kind = form(field.source);
  if (field.source === "CONSTANT") parts.push(`“${field.value}”`);
  if (kind === "day") parts.push(field.value);
  if (kind === "amount")
    parts.push({ POINT: "1225.00", COMMA: "1225,00", IMPLIED: "122500" }[field.decimals] ?? field.decimals);
  if (kind === "amount" && field.sign !== "NONE") parts.push(`sign ${words(field.sign)}`);
  if (field.align === "RIGHT") parts.push("right");
  if (field.fill !== " ") parts.push(`filled with ${field.fill}`);
  if (field.letters !== "AS_THEY_ARE")
    parts.push(field.letters === "UPPER" ? "large letters" : "small letters");
  if (field.cut) parts.push("cut");
  const values = Object.entries(field.substitutions.values);
  if (values.length > 0) parts.push(values.map(([of, other]) => `${of} → ${other}`).join(", "));
  if (field.characters.allowed) parts.push(`only ${field.characters.allowed}`);
  return parts.join(", ");
}
