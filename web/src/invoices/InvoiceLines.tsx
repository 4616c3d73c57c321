import type { Schemas } from "../api/client";

export interface LineEntry {
  account: string;
  amount: string;
  job: string;
}

export const EMPTY: LineEntry = { account: "", amount: "", job: "" };

/** The account of that code, as it is typed or chosen. */
export function accountOf(accounts: Schemas["AccountView"][] | undefined, code: string) {
  return accounts?.find((one) => one.code === code.trim().split(" ")[0]);
}

/** The lines of a document; the last one filled makes room for another. */
export function InvoiceLines({
  lines,
  accounts,
  atFault,
  onLine,
  onFilled,
}: {
  lines: LineEntry[];
  accounts: Schemas["AccountView"][];
  atFault: boolean;
  onLine: (place: number, next: Partial<LineEntry>) => void;
  onFilled: () => void;
}) {
  return (
    <>
      <table className="w-full max-w-3xl">
        <thead className="text-faint text-left text-note">
          <tr>
            <th className="w-8 font-semibold">#</th>
            <th className="font-semibold">Account</th>
            <th className="w-40 text-right font-semibold">Amount</th>
            <th className="w-36 pl-3 font-semibold">Job</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line, i) => (
            <tr key={i}>
              <td className="text-faint">{i + 1}</td>
              <td>
                <input
                  name={`account-${i}`}
                  aria-label={`Account of line ${i + 1}`}
                  list="accounts-known"
                  className="w-40"
                  value={line.account}
                  onChange={(event) => onLine(i, { account: event.target.value })}
                />{" "}
                <span className="text-faint">{accountOf(accounts, line.account)?.name}</span>
              </td>
              <td>
                <input
                  name={`amount-${i}`}
                  aria-label={`Amount of line ${i + 1}`}
                  inputMode="decimal"
                  className="w-full text-right"
                  value={line.amount}
                  onChange={(event) => onLine(i, { amount: event.target.value })}
                  onBlur={() => i === lines.length - 1 && line.amount.trim() !== "" && onFilled()}
                  aria-invalid={atFault || undefined}
                />
              </td>
              <td className="pl-3">
                <input
                  name={`job-${i}`}
                  aria-label={`Job of line ${i + 1}`}
                  maxLength={20}
                  className="w-full"
                  value={line.job}
                  onChange={(event) => onLine(i, { job: event.target.value })}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <datalist id="accounts-known">
        {accounts
          .filter((a) => a.kind === "EXPENSE")
          .map((a) => (
            <option key={a.id} value={a.code}>
              {a.name}
            </option>
          ))}
      </datalist>
    </>
  );
}
