import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { dayMonth } from "../parts/dates";
import { useRest } from "../parts/useRest";

/** What is known of the vendor while a document is typed, and whether it may be one that is in already. */
export function BesideEntry({
  vendor,
  kind,
  reference,
  date,
  amount,
  currency,
}: {
  vendor: { id: number; name: string };
  kind: "INVOICE" | "CREDIT";
  reference: string;
  date: string;
  amount: string;
  currency: string | undefined;
}) {
  const asked = useRest(JSON.stringify({ vendor: vendor.id, kind, reference, date, amount, currency }));
  const beside = useQuery({
    queryKey: ["beside", asked],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      call(
        api.GET("/api/invoices/beside", {
          params: {
            query: JSON.parse(asked) as {
              vendor: number;
              kind: typeof kind;
              reference: string;
              date: string;
            },
          },
          signal,
        }),
      ),
  });
  if (!beside.data) return null;
  const { open, count, last, likely } = beside.data;
  return (
    <section aria-label={`About ${vendor.name}`} className="mb-5 flex flex-col gap-3">
      {likely.length > 0 && (
        <div role="status" className="callout">
          <p className="text-brass font-semibold">This may be in already:</p>
          <Rows rows={likely} several={open.length > 1} />
        </div>
      )}
      <p>
        {count === 0 ? (
          <>Nothing of {vendor.name} is open.</>
        ) : (
          <>
            Open of {vendor.name}: <b>{open.map((one) => `${one.text} ${one.currency}`).join(" and ")}</b> in{" "}
            {count} {count === 1 ? "document" : "documents"}.
          </>
        )}
      </p>
      {last.length > 0 && (
        <div>
          <h2 className="text-faint text-note font-semibold">The last that came</h2>
          <Rows rows={last} several={open.length > 1} />
        </div>
      )}
    </section>
  );
}

/** @param several whether they may be of several currencies */
function Rows({ rows, several }: { rows: Schemas["BesideRow"][]; several: boolean }) {
  return (
    <ul>
      {rows.map((row) => (
        <li key={row.entry} className="border-hair grid grid-cols-[1fr_auto] gap-x-3 border-b py-1">
          <Link className="go truncate font-mono text-note" to={`/invoices/${row.entry}`}>
            {row.reference}
          </Link>
          <span>
            {row.amount.text} {several && row.amount.currency}
          </span>
          <span className="text-faint text-note">{row.words}</span>
          <span className="text-faint text-right text-note">{dayMonth(row.date)}</span>
        </li>
      ))}
    </ul>
  );
}
