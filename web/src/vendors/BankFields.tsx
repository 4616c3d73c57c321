import { Field } from "../parts/Field";

export type TypedBank = { routing: string; account: string };

export const NO_BANK: TypedBank = { routing: "", account: "" };

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
    </div>
  );
}
