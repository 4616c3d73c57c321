import { Field } from "../parts/Field";

export type TypedBank = { routing: string; account: string; savings: boolean; bic: string };

export const NO_BANK: TypedBank = { routing: "", account: "", savings: false, bic: "" };

/** Bank details as they are typed; what they are worth the server says. */
export function BankFields({ value, onChange }: { value: TypedBank; onChange: (next: TypedBank) => void }) {
  return (
    <div className="flex flex-wrap gap-3">
      <Field label="Routing number, empty for an IBAN" small>
        <input
          className="w-40 font-mono"
          value={value.routing}
          autoComplete="off"
          onChange={(event) => onChange({ ...value, routing: event.target.value })}
        />
      </Field>
      <Field label="Account number or IBAN" small>
        <input
          className="w-64 font-mono"
          value={value.account}
          autoComplete="off"
          onChange={(event) => onChange({ ...value, account: event.target.value })}
        />
      </Field>
      {value.routing.trim() === "" ? (
        <Field label="BIC, where the letter names one" small>
          <input
            className="w-40 font-mono"
            value={value.bic}
            autoComplete="off"
            onChange={(event) => onChange({ ...value, bic: event.target.value })}
          />
        </Field>
      ) : (
        <Field label="Kind of account" small>
          <select
            value={value.savings ? "yes" : "no"}
            onChange={(event) => onChange({ ...value, savings: event.target.value === "yes" })}
          >
            <option value="no">checking</option>
            <option value="yes">savings</option>
          </select>
        </Field>
      )}
    </div>
  );
}
