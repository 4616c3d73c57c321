import { DayField } from "../parts/DayField";
import { Field } from "../parts/Field";
import type { useInvoiceEntry } from "./useInvoiceEntry";

/** What a document says of itself: kind, vendor, reference, days, terms. */
export function InvoiceHead({ entry }: { entry: ReturnType<typeof useInvoiceEntry> }) {
  const { vendorText, kind, head, chosen, vendors, preview, refused, setVendor, setKind, setHead } = entry;
  const currencies = preview.data?.currencies ?? [];
  const fault = (name: string) => (refused?.fields[name] ? { "aria-invalid": true } : {});
  return (
    <>
      <div className="grid grid-cols-[120px_minmax(200px,1.4fr)_1fr_150px_130px] gap-3 max-[1100px]:grid-cols-2">
        <Field label="What it is" small>
          <select value={kind} onChange={(event) => setKind(event.target.value as typeof kind)}>
            <option value="INVOICE">invoice</option>
            <option value="CREDIT">credit</option>
          </select>
        </Field>
        <Field label="Vendor, by number or name" small>
          <input
            name="vendor"
            list="vendors-known"
            autoFocus
            value={vendorText || chosen?.number || ""}
            onChange={(event) => setVendor(event.target.value)}
            {...fault("vendor")}
          />
          <datalist id="vendors-known">
            {vendors?.map((v) => (
              <option key={v.id} value={v.number}>
                {v.name}
              </option>
            ))}
          </datalist>
        </Field>
        <Field label="Their reference" small>
          <input
            name="reference"
            maxLength={40}
            value={head.reference}
            onChange={(event) => setHead({ reference: event.target.value })}
            {...fault("reference")}
          />
        </Field>
        <DayField
          label="Invoice date"
          name="date"
          value={head.date}
          onDay={(date) => setHead({ date: date ?? "" })}
        />
        <Field label="Without discount" small>
          <input
            name="apart"
            inputMode="decimal"
            className="text-right"
            value={head.apart}
            onChange={(event) => setHead({ apart: event.target.value })}
            {...fault("notDiscountable")}
          />
        </Field>
      </div>
      <div className="grid grid-cols-[minmax(200px,1fr)_150px_1fr] gap-3 max-[1100px]:grid-cols-2">
        <Field label="Its own terms, where it has any" small>
          <input
            name="terms"
            maxLength={60}
            placeholder={preview.data?.terms ?? "2% 10, net 30"}
            value={head.terms}
            onChange={(event) => setHead({ terms: event.target.value })}
            {...fault("terms")}
          />
        </Field>
        <DayField
          label="Its own due date"
          name="due"
          value={head.due}
          onDay={(due) => setHead({ due: due ?? "" })}
        />
        {currencies.length > 1 && (
          <Field label="It is owed in" small>
            <select
              className="w-24"
              value={head.currency || currencies[0]}
              onChange={(event) => setHead({ currency: event.target.value })}
              {...fault("currency")}
            >
              {currencies.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </Field>
        )}
      </div>
    </>
  );
}
