import type { Schemas } from "../api/client";
import { TypedCell, TypedRows, type TypedColumn } from "../parts/TypedRows";
import { VendorNames } from "../vendors/VendorNames";
import { EMPTY, type TypedRow } from "./rows";
import type { DirectNow } from "./useDirect";

/** Payments row by row, each with what is understood of it below. */
export function DirectRows({
  direct,
  at,
  onAt,
}: {
  direct: DirectNow;
  at: number;
  onAt: (place: number) => void;
}) {
  const { typed, setRows, seen } = direct;
  const wrong = (place: number, name: string) => Boolean(seen(place)?.fields[name]);
  const columns: TypedColumn<TypedRow>[] = [
    {
      name: "vendor",
      title: "Pay to",
      width: "w-[27%]",
      cell: (cell) => (
        <>
          <TypedCell
            at={cell}
            name="vendor"
            label="Payee"
            wrong={wrong(cell.place, "vendor")}
            maxLength={120}
            list={cell.here ? "pay-to" : undefined}
          />
          {cell.here && <VendorNames id="pay-to" text={cell.row.vendor} />}
        </>
      ),
    },
    {
      name: "said",
      title: "What it is for",
      cell: (cell) => (
        <TypedCell
          at={cell}
          name="said"
          label="What it is for"
          wrong={wrong(cell.place, "said")}
          maxLength={300}
        />
      ),
    },
    {
      name: "reference",
      title: "The payee reads",
      width: "w-[22%]",
      cell: (cell) => (
        <TypedCell
          at={cell}
          name="reference"
          label="Reference"
          wrong={wrong(cell.place, "reference")}
          maxLength={60}
          look="font-mono"
        />
      ),
    },
    {
      name: "amount",
      title: "Amount",
      width: "w-[14%]",
      right: true,
      cell: (cell) => (
        <TypedCell
          at={cell}
          name="amount"
          label="Amount"
          wrong={wrong(cell.place, "amount")}
          maxLength={40}
          inputMode="decimal"
          look="text-right"
        />
      ),
    },
  ];
  return (
    <TypedRows
      rows={typed.rows}
      setRows={setRows}
      after={() => EMPTY}
      columns={columns}
      at={at}
      onAt={onAt}
      below={(place) => {
        const one = seen(place);
        return one && <Understood seen={one} typed={typed.rows[place]!} />;
      }}
    />
  );
}

/** What a row will do, in one line; or why it cannot. */
function Understood({ seen, typed }: { seen: Schemas["LookedDirect"]; typed: TypedRow }) {
  if (seen.problem) return <span className="text-rust">{seen.problem}</span>;
  const named = seen.payee.toLowerCase() === typed.vendor.trim().toLowerCase();
  return (
    <span className="text-faint">
      {[named ? "" : seen.payee, seen.debits.map((one) => `${one.what} ${one.amount}`).join("; ")]
        .filter(Boolean)
        .join(" · ")}
      {seen.says && <span className="text-brass"> · {seen.says}</span>}
    </span>
  );
}
