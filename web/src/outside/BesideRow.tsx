import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { shortDate } from "../parts/dates";
import type { TypedRow } from "./rows";

const SHOWN = 14;

/** What is open of the vendor in the row that is typed, to be named with a press. */
export function BesideRow({
  row,
  seen,
  onSaid,
}: {
  row: TypedRow;
  seen: Schemas["LookedRow"] | undefined;
  onSaid: (said: string) => void;
}) {
  const open = useQuery({
    queryKey: ["vendor-account", seen?.vendor, "OPEN"],
    enabled: seen?.vendor != null,
    queryFn: () =>
      call(
        api.GET("/api/vendors/{id}/account", {
          params: { path: { id: seen!.vendor! }, query: { show: "OPEN" } },
        }),
      ),
  });
  if (seen?.vendor == null) return <HowTo />;
  const named = row.said.split(/[,;]/).map((part) => part.trim().toLowerCase());
  const invoices = open.data?.filter((one) => one.kind === "INVOICE") ?? [];
  return (
    <section aria-label={`Open of ${seen.payee}`} className="flex flex-col gap-3">
      <h2 className="text-base font-bold">
        <Link className="go" to={`/vendors/${seen.vendor}`}>
          {seen.payee}
        </Link>
      </h2>
      {open.data && invoices.length === 0 && (
        <p className="text-faint">
          Nothing of it is open. Name an account of the ledger, or enter the invoice first.
        </p>
      )}
      {invoices.length > 0 && (
        <table className="w-full text-note">
          <caption className="text-faint text-left">Press one to name it</caption>
          <tbody>
            {invoices.slice(0, SHOWN).map((one) => (
              <tr key={one.key} className="border-hair border-t">
                <td className="py-0.5">
                  <button
                    type="button"
                    className="go min-h-6 font-mono"
                    aria-pressed={named.includes(one.reference.toLowerCase())}
                    onClick={() => onSaid(toggled(row.said, one.reference))}
                  >
                    {named.includes(one.reference.toLowerCase()) && "✓ "}
                    {one.reference}
                  </button>
                </td>
                <td className="text-faint">{one.dueDate && `due ${shortDate(one.dueDate)}`}</td>
                <td className="text-right">{one.open}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {invoices.length > SHOWN && (
        <p className="text-faint">and {invoices.length - SHOWN} more, on its page</p>
      )}
      <HowTo />
    </section>
  );
}

/** The references with this one added, or taken off where it is named. */
export function toggled(said: string, reference: string): string {
  const named = said
    .split(/[,;]/)
    .map((part) => part.trim())
    .filter(Boolean);
  const without = named.filter((part) => part.toLowerCase() !== reference.toLowerCase());
  return (without.length < named.length ? without : [...named, reference]).join(", ");
}

function HowTo() {
  return (
    <div className="text-faint flex flex-col gap-2">
      <p>
        <b>What it was for</b>: the vendor’s references with commas between; or accounts of the ledger, each
        with its job and its share, such as <span className="font-mono">5400</span> or{" "}
        <span className="font-mono">5600/PIER-2 700.00; 5400 525.00</span>. Left empty, an amount that fits
        one open invoice settles it. What was paid ahead of an invoice names the reference that will carry:{" "}
        <span className="font-mono">ahead PO-118</span>, or{" "}
        <span className="font-mono">ahead PO-118 from 2026-12-15</span> where it may be used from a day only.
      </p>
      <p>
        Nothing is printed, and nothing goes to the bank for it: the money has left. It is agreed to after the
        fact, then posted.
      </p>
    </div>
  );
}
