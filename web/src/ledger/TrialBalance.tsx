import { useQuery } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { Loaded } from "../parts/Loaded";

/** A balance; one without “cr” keeps its place free, so that the decimal points stand in one line. */
function Balance({ of }: { of: Schemas["BalanceView"] }) {
  return (
    <>
      {of.text}
      <span className={of.credit ? "" : "invisible"}> cr</span>
    </>
  );
}

/** Each account at the start of a month, what moved it, and at the end. */
export function TrialBalance({ month }: { month: string }) {
  const balance = useQuery({
    queryKey: ["balance", month],
    queryFn: () => call(api.GET("/api/ledger/{month}/trial-balance", { params: { path: { month } } })),
  });
  return <Loaded query={balance}>{(data) => <Balances balance={data} />}</Loaded>;
}

function Balances({ balance }: { balance: Schemas["TrialBalanceView"] }) {
  return (
    <div className="min-h-0 flex-1 overflow-auto px-4 py-2" tabIndex={0} data-list>
      <table className="w-full max-w-5xl">
        <thead className="text-faint text-note">
          <tr>
            <th className="py-1.5 text-left font-semibold">Account</th>
            <th className="text-right font-semibold">At the start</th>
            <th className="text-right font-semibold">Debit</th>
            <th className="text-right font-semibold">Credit</th>
            <th className="text-right font-semibold">At the end</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {balance.lines.map((line) => (
            <tr key={line.account + line.currency} className="border-hair border-t">
              <td className="py-1.5">{line.account}</td>
              <td className="text-right">
                <Balance of={line.opening} />
              </td>
              <td className="text-right">{line.debit}</td>
              <td className="text-right">{line.credit}</td>
              <td className="text-right">
                <Balance of={line.closing} />
              </td>
              <td className="text-faint pl-3 text-note">{line.currency}</td>
            </tr>
          ))}
          {balance.totals.map((total) => (
            <tr key={total.account} className="border-ink border-t font-bold">
              <td className="py-1.5">{total.account}</td>
              <td />
              <td className="text-right">{total.debit}</td>
              <td className="text-right">{total.credit}</td>
              <td />
              <td />
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
