import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, type KeyboardEvent } from "react";
import { api, call, type Schemas } from "../api/client";
import { longDate } from "../parts/dates";
import { DayField } from "../parts/DayField";
import { useRest } from "../parts/useRest";
import { after, type TypedRow } from "./rows";
import type { RecordingNow } from "./useRecording";

type Field = keyof TypedRow;

/** Payments row by row, each with what is understood of it below. */
export function PaidRows({
  recording,
  at,
  onAt,
}: {
  recording: RecordingNow;
  at: number;
  onAt: (place: number) => void;
}) {
  const { typed, setRows, today } = recording;
  const { rows } = typed;
  const table = useRef<HTMLTableElement>(null);
  // the cursor goes into a row that is not drawn yet
  const going = useRef<number>(undefined);
  useEffect(() => {
    if (going.current === undefined) return;
    const field = table.current?.querySelector<HTMLInputElement>(`[name=number-${going.current}]`);
    if (!field) return;
    field.focus();
    field.select();
    going.current = undefined;
  });
  const set = (place: number, next: Partial<TypedRow>) =>
    setRows((before) => before.map((row, i) => (i === place ? { ...row, ...next } : row)));
  const go = (place: number) => {
    going.current = place;
    onAt(place);
    setRows((before) => (place < before.length ? [...before] : [...before, after(before.at(-1), today)]));
  };
  const takeOut = (place: number) =>
    setRows((before) =>
      before.length > 1 ? before.filter((_, i) => i !== place) : [after(undefined, today)],
    );
  const pressed = (event: KeyboardEvent<HTMLTableElement>) => {
    const [name, text] = (event.target as HTMLInputElement).name?.split("-") ?? [];
    if (text === undefined) return;
    const place = Number(text);
    if (event.key === "Enter") {
      event.preventDefault();
      go(place + 1);
    } else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "d") {
      event.preventDefault();
      const above = rows[place - 1];
      if (above) set(place, { [name as Field]: above[name as Field] });
    }
  };
  return (
    <table ref={table} className="w-full table-fixed" onKeyDown={pressed}>
      <thead className="text-faint text-left text-note">
        <tr>
          <th className="w-8 font-semibold">#</th>
          <th className="w-[15%] font-semibold">Number</th>
          <th className="w-[17%] font-semibold">Paid on</th>
          <th className="w-[23%] font-semibold">Paid to</th>
          <th className="font-semibold">What it was for</th>
          <th className="w-[13%] text-right font-semibold">Amount</th>
          <th className="w-9">
            <span className="sr-only">Take out</span>
          </th>
        </tr>
      </thead>
      {rows.map((row, i) => (
        <PaidRow
          key={i}
          place={i}
          row={row}
          seen={recording.seen(i)}
          here={i === at}
          onHere={() => onAt(i)}
          set={(next) => set(i, next)}
          takeOut={() => takeOut(i)}
        />
      ))}
    </table>
  );
}

function PaidRow({
  place,
  row,
  seen,
  here,
  onHere,
  set,
  takeOut,
}: {
  place: number;
  row: TypedRow;
  seen: Schemas["LookedRow"] | undefined;
  here: boolean;
  onHere: () => void;
  set: (next: Partial<TypedRow>) => void;
  takeOut: () => void;
}) {
  const cell = (name: Exclude<Field, "paidOn">, label: string, more: object = {}) => (
    <input
      name={`${name}-${place}`}
      aria-label={`${label} of row ${place + 1}`}
      aria-invalid={seen?.fields[name] ? true : undefined}
      autoComplete="off"
      className="w-full"
      value={row[name]}
      onChange={(event) => set({ [name]: event.target.value })}
      {...more}
    />
  );
  return (
    <tbody className={`align-top ${here ? "bg-cursor" : ""}`} onFocus={onHere}>
      <tr>
        <td className="text-faint pt-2">{place + 1}</td>
        <td className="pt-1 pr-2">
          {cell("number", "Number", { maxLength: 60, className: "w-full font-mono" })}
        </td>
        <td className="pt-1 pr-2">
          <DayField
            label={`Day of row ${place + 1}`}
            unseen
            name={`paidOn-${place}`}
            value={row.paidOn}
            onDay={(day) => set({ paidOn: day ?? "" })}
          />
        </td>
        <td className="pt-1 pr-2">
          {cell("vendor", "Vendor", { maxLength: 120, list: here ? "paid-to" : undefined })}
          {here && <Vendors text={row.vendor} />}
        </td>
        <td className="pt-1 pr-2">{cell("said", "What it was for", { maxLength: 300 })}</td>
        <td className="pt-1">
          {cell("amount", "Amount", { maxLength: 40, inputMode: "decimal", className: "w-full text-right" })}
        </td>
        <td className="pt-1">
          <button
            type="button"
            tabIndex={-1}
            className="text-faint min-h-8 w-full"
            aria-label={`Take row ${place + 1} out`}
            onClick={takeOut}
          >
            ×
          </button>
        </td>
      </tr>
      <tr className="border-hair border-b">
        <td />
        <td colSpan={6} className="pb-1.5 text-note">
          {seen && <Understood seen={seen} typed={row} />}
        </td>
      </tr>
    </tbody>
  );
}

/** What a row will do, in one line; or why it cannot. */
function Understood({ seen, typed }: { seen: Schemas["LookedRow"]; typed: TypedRow }) {
  if (seen.problem) return <span className="text-rust">{seen.problem}</span>;
  const named = seen.payee.toLowerCase() === typed.vendor.trim().toLowerCase();
  return (
    <span className="text-faint">
      {[
        named ? "" : seen.payee,
        seen.settles
          .slice(0, 3)
          .map((one) => `${one.what} ${one.amount}${one.discount && `, of it discount ${one.discount}`}`)
          .join("; "),
        seen.settles.length > 3 ? `and ${seen.settles.length - 3} more` : "",
        seen.ledgerDate === seen.paidOn ? "" : `in the ledger on ${longDate(seen.ledgerDate)}`,
      ]
        .filter(Boolean)
        .join(" · ")}
      {seen.says && <span className="text-brass"> · {seen.says}</span>}
    </span>
  );
}

/** The vendors that what is typed may mean. */
function Vendors({ text }: { text: string }) {
  const asked = useRest(text.trim());
  const found = useQuery({
    queryKey: ["vendors", asked],
    queryFn: () => call(api.GET("/api/vendors", { params: { query: { text: asked } } })),
  });
  return (
    <datalist id="paid-to">
      {found.data?.map((one) => (
        <option key={one.id} value={one.name}>
          {one.number}
        </option>
      ))}
    </datalist>
  );
}
