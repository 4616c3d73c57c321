import { useWatch } from "react-hook-form";
import { ChoiceEntry, Entry, useEntryForm } from "../parts/Form";

/** What else is to be known of an account: which kind it is with a routing number, the bank's BIC with an IBAN. */
export function KindOfAccount({ small = false }: { small?: boolean }) {
  const form = useEntryForm();
  const routing = String(useWatch({ control: form.control, name: "routing" }) ?? "");
  return routing.trim() === "" ? (
    <Entry name="bic" small={small} label="BIC of its bank; mostly empty" look="w-40 font-mono" />
  ) : (
    <ChoiceEntry
      name="savings"
      small={small}
      label="Kind of account"
      choices={[
        { value: "no", text: "checking" },
        { value: "yes", text: "savings" },
      ]}
    />
  );
}
