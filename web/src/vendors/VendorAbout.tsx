import { useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { TrailFold } from "../audit/TrailOf";
import { shortDate } from "../parts/dates";
import { useDeed } from "../parts/useDeed";
import { Identifiers } from "./Identifiers";
import { VendorChangesPart } from "./VendorChangesPart";
import { VendorKept } from "./VendorKept";
import type { Vendor } from "./VendorPage";

/** What is known of a vendor: what one person keeps, addresses, what was paid, offsets, and its trail. */
export function About({
  vendor,
  clerk,
  onPropose,
}: {
  vendor: Vendor;
  clerk: boolean;
  onPropose: ((address: Schemas["AddressView"] | "further") => void) | undefined;
}) {
  return (
    <div className="flex flex-col gap-4">
      <VendorKept vendor={vendor} />
      <Addresses vendor={vendor} onPropose={onPropose} />
      <VendorChangesPart vendor={vendor} />
      <Identifiers vendor={vendor.id} />
      <Paid vendor={vendor} />
      <Offsets vendor={vendor} clerk={clerk} />
      <TrailFold subject={`vendor ${vendor.id}`} name={vendor.name} />
    </div>
  );
}

function Addresses({
  vendor,
  onPropose,
}: {
  vendor: Vendor;
  onPropose: ((address: Schemas["AddressView"] | "further") => void) | undefined;
}) {
  return (
    <>
      <section>
        <h2 className="text-faint mb-1 text-note font-semibold">
          {vendor.addresses.length === 1 ? "Address" : "Addresses, the usual one first"}
        </h2>
        {vendor.addresses.map((address) => (
          <address key={address.id} className="mb-2 not-italic">
            {[address.payee, ...address.lines].map((text, i) => (
              <div key={i}>{text}</div>
            ))}
            {address.bank && <div className="text-faint text-note">{address.bank}</div>}
            {!address.inForce && (
              <div className="text-brass text-note">waits for a second person; nothing is paid to it</div>
            )}
            {onPropose && (
              <button type="button" className="go min-h-6 text-note" onClick={() => onPropose(address)}>
                Propose a change…
              </button>
            )}
          </address>
        ))}
      </section>
      {onPropose && (
        <button type="button" className="go min-h-6 self-start" onClick={() => onPropose("further")}>
          Propose a further address…
        </button>
      )}
    </>
  );
}

function Paid({ vendor }: { vendor: Vendor }) {
  return (
    <section>
      <h2 className="text-faint mb-1 text-note font-semibold">Paid per year, by check date</h2>
      {vendor.paid.length === 0 && <p className="text-faint">Nothing was paid yet.</p>}
      <table className="w-full">
        <tbody>
          {vendor.paid.map((year) => (
            <tr key={`${year.year}${year.amount.currency}`}>
              <th scope="row" className="text-left font-normal">
                {year.year}
              </th>
              <td className="text-faint text-right text-note">
                {year.count} {year.count === 1 ? "payment" : "payments"}
                {year.changedLater > 0 && `, ${year.changedLater} undone later`}
              </td>
              <td className="text-right">
                {year.amount.text} {year.amount.currency}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Offsets({ vendor, clerk }: { vendor: Vendor; clerk: boolean }) {
  const queries = useQueryClient();
  const takingBack = useDeed(
    (id: number) => call(api.POST("/api/offsets/{id}/undo", { params: { path: { id } } })),
    { done: () => queries.invalidateQueries() },
  );
  if (vendor.offsets.length === 0) return null;
  return (
    <section>
      <h2 className="text-faint mb-1 text-note font-semibold">Offsets</h2>
      <ul>
        {vendor.offsets.map((offset) => (
          <li key={offset.id} className={`flex gap-2 ${offset.undone ? "text-faint line-through" : ""}`}>
            <span className="font-mono text-note">{offset.reference}</span>
            <span>{shortDate(offset.date)}</span>
            <span className="ml-auto">{offset.amount.text}</span>
            {clerk && !offset.undone && (
              <button
                type="button"
                className="go min-h-6"
                disabled={takingBack.busy}
                onClick={() => void takingBack.run(offset.id)}
              >
                take back
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
