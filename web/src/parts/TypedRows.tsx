import { useEffect, useRef, type KeyboardEvent, type ReactNode } from "react";

/** A row as one of its cells sees it. */
export interface TypedAt<R> {
  place: number;
  row: R;
  /** Whether the cursor is in this row. */
  here: boolean;
  set: (next: Partial<R>) => void;
}

export interface TypedColumn<R> {
  /** The field it holds; the first is where a new row begins. */
  name: keyof R & string;
  title: string;
  /** Tailwind's width; none takes what is left. */
  width?: string;
  right?: boolean;
  cell: (at: TypedAt<R>) => ReactNode;
}

/** Rows that are typed one below the other: Enter begins the next, Ctrl D repeats the field above; what is understood of each stands below it. */
export function TypedRows<R extends object>({
  rows,
  setRows,
  after,
  columns,
  at,
  onAt,
  below,
}: {
  rows: R[];
  setRows: (next: (rows: R[]) => R[]) => void;
  /** The row that is begun below another, or the first. */
  after: (row: R | undefined) => R;
  columns: TypedColumn<R>[];
  at: number;
  onAt: (place: number) => void;
  below: (place: number) => ReactNode;
}) {
  const first = columns[0]!.name;
  const table = useRef<HTMLTableElement>(null);
  // the cursor goes into a row that is not drawn yet
  const going = useRef<number>(undefined);
  useEffect(() => {
    if (going.current === undefined) return;
    const field = table.current?.querySelector<HTMLInputElement>(`[name=${first}-${going.current}]`);
    if (!field) return;
    field.focus();
    field.select();
    going.current = undefined;
  });
  const set = (place: number, next: Partial<R>) =>
    setRows((before) => before.map((row, i) => (i === place ? { ...row, ...next } : row)));
  const go = (place: number) => {
    going.current = place;
    onAt(place);
    setRows((before) => (place < before.length ? [...before] : [...before, after(before.at(-1))]));
  };
  const takeOut = (place: number) =>
    setRows((before) => (before.length > 1 ? before.filter((_, i) => i !== place) : [after(undefined)]));
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
      if (above) set(place, { [name as keyof R]: above[name as keyof R] } as Partial<R>);
    }
  };
  return (
    <table ref={table} className="w-full table-fixed" onKeyDown={pressed}>
      <thead className="text-faint text-left text-note">
        <tr>
          <th className="w-8 font-semibold">#</th>
          {columns.map((column) => (
            <th
              key={column.name}
              className={`font-semibold ${column.width ?? ""} ${column.right ? "text-right" : ""}`}
            >
              {column.title}
            </th>
          ))}
          <th className="w-9">
            <span className="sr-only">Take out</span>
          </th>
        </tr>
      </thead>
      {rows.map((row, place) => (
        <tbody
          key={place}
          className={`align-top ${place === at ? "bg-cursor" : ""}`}
          onFocus={() => onAt(place)}
        >
          <tr>
            <td className="text-faint pt-2">{place + 1}</td>
            {columns.map((column) => (
              <td key={column.name} className={`pt-1 ${column.right ? "" : "pr-2"}`}>
                {column.cell({ place, row, here: place === at, set: (next) => set(place, next) })}
              </td>
            ))}
            <td className="pt-1">
              <button
                type="button"
                tabIndex={-1}
                className="text-faint min-h-8 w-full"
                aria-label={`Take row ${place + 1} out`}
                onClick={() => takeOut(place)}
              >
                ×
              </button>
            </td>
          </tr>
          <tr className="border-hair border-b">
            <td />
            <td colSpan={columns.length + 1} className="pb-1.5 text-note">
              {below(place)}
            </td>
          </tr>
        </tbody>
      ))}
    </table>
  );
}

/** A field of such a row. */
export function TypedCell<R extends object>({
  at: { place, row, set },
  name,
  label,
  wrong,
  look = "",
  ...input
}: {
  at: TypedAt<R>;
  name: keyof R & string;
  label: string;
  wrong: boolean;
  look?: string;
  maxLength: number;
  inputMode?: "decimal";
  list?: string;
}) {
  return (
    <input
      name={`${name}-${place}`}
      aria-label={`${label} of row ${place + 1}`}
      aria-invalid={wrong || undefined}
      autoComplete="off"
      className={`w-full ${look}`}
      value={row[name] as string}
      onChange={(event) => set({ [name]: event.target.value } as Partial<R>)}
      {...input}
    />
  );
}
