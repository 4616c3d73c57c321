import type { Schemas } from "../api/client";
import { ChoiceWord } from "../parts/Word";

/** Which bank account a sentence is about. */
export function AccountWord({
  account,
  accounts,
  onChange,
}: {
  /** Undefined while they are on their way. */
  account: Schemas["BankAccountView"] | undefined;
  accounts: Schemas["BankAccountView"][];
  onChange: (id: string) => void;
}) {
  return (
    <ChoiceWord
      name="Bank account"
      text={account?.name ?? "…"}
      value={String(account?.id ?? "")}
      choices={accounts.map((one) => ({ value: String(one.id), text: one.name, detail: one.bankName }))}
      onChange={onChange}
    />
  );
}
