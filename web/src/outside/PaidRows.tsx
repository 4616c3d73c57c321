import type { Schemas } from "../api/client";
import { longDate } from "../parts/dates";
import { DayField } from "../parts/DayField";
import { TypedCell, TypedRows, type TypedColumn } from "../parts/TypedRows";
import { VendorNames } from "../vendors/VendorNames";
import { after, type TypedRow } from "./rows";
import type { RecordingNow } from "./useRecording";

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
  const { typed, setRows, today, seen } = recording;
  const wrong = (place: number, name: string) => Boolean(seen(place)?.fields[name]);
  const columns: TypedColumn<TypedRow>[] = [
    {
      name: "number",
      title: "Number",
      width: "w-[15%]",
      cell: (cell) => (
        <TypedCell
          at={cell}
          name="number"
          label="Number"
          wrong={wrong(cell.place, "number")}
          maxLength={60}
          look="font-mono"
        />
      ),
    },
    {
      name: "paidOn",
      title: "Paid on",
      width: "w-[17%]",
      cell: ({ place, row, set }) => (
        <DayField
          label={`Day of row ${place + 1}`}
          unseen
          name={`paidOn-${place}`}
          value={row.paidOn}
          onDay={(day) => set({ paidOn: day ?? "" })}
        />
      ),
    },
    {
      name: "vendor",
      title: "Paid to",
      width: "w-[23%]",
      cell: (cell) => (
        <>
          <TypedCell
            at={cell}
            name="vendor"
            label="Vendor"
            wrong={wrong(cell.place, "vendor")}
            maxLength={120}
            list={cell.here ? "paid-to" : undefined}
          />
          {cell.here && <VendorNames id="paid-to" text={cell.row.vendor} />}
        </>
      ),
    },
    {
      name: "said",
      title: "What it was for",
      cell: (cell) => (
        <TypedCell
          at={cell}
          name="said"
          label="What it was for"
          wrong={wrong(cell.place, "said")}
          maxLength={300}
        />
      ),
    },
    {
      name: "amount",
      title: "Amount",
      width: "w-[13%]",
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
      after={(row) => after(row, today)}
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
