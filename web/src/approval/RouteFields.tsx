import type { Schemas } from "../api/client";

export type Content = Schemas["PolicyContent"];

export type Route = Schemas["RouteContent"];

type Limit = Schemas["LimitContent"];

export type Person = Schemas["ColleagueView"];

export function askedBy(
  route: Route,
  marks: Schemas["MarkChoice"][],
  accounts: Schemas["BankAccountView"][],
): string {
  const limit = (limits: Limit[]) => limits.map((one) => `${one.amount} ${one.currency}`).join(" or ");
  const asked = [
    route.totalOver.length > 0 && `a total over ${limit(route.totalOver)}`,
    route.paymentOver.length > 0 && `a payment over ${limit(route.paymentOver)}`,
    route.marks.length > 0 &&
      `a payment marked ${route.marks.map((kind) => marks.find((one) => one.kind === kind)?.words ?? kind).join(", or ")}`,
  ].filter(Boolean);
  const where =
    route.accounts.length > 0
      ? ` Only for ${route.accounts.map((id) => accounts.find((one) => one.id === id)?.name ?? id).join(" and ")}.`
      : "";
  return `Asked for by ${asked.length === 0 ? "every batch" : asked.join("; ")}.${where}`;
}

export function AskedBy({
  route,
  marks,
  accounts,
  currencies,
  put,
}: {
  route: Route;
  marks: Schemas["MarkChoice"][];
  accounts: Schemas["BankAccountView"][];
  currencies: string[];
  put: (next: Route) => void;
}) {
  const limits = (title: string, of: Limit[], set: (next: Limit[]) => void) => (
    <div className="flex flex-wrap items-center gap-2">
      <span className="w-28">{title}</span>
      {currencies.map((currency) => (
        <label key={currency} className="flex items-center gap-1">
          <input
            aria-label={`${title}, ${currency}`}
            className="w-28 text-right"
            inputMode="decimal"
            placeholder="no limit"
            value={of.find((one) => one.currency === currency)?.amount ?? ""}
            onChange={(event) => {
              const rest = of.filter((one) => one.currency !== currency);
              set(event.target.value.trim() ? [...rest, { currency, amount: event.target.value }] : rest);
            }}
          />
          {currency}
        </label>
      ))}
    </div>
  );
  return (
    <fieldset className="mt-2 flex flex-col gap-2">
      <legend className="text-faint text-note">Asked for by any of these</legend>
      {limits("a total over", route.totalOver, (totalOver) => put({ ...route, totalOver }))}
      {limits("a payment over", route.paymentOver, (paymentOver) => put({ ...route, paymentOver }))}
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="w-28">a mark</span>
        {marks.map((mark) => (
          <label key={mark.kind} className="flex min-h-6 items-center gap-1.5">
            <input
              type="checkbox"
              className="min-h-0"
              checked={route.marks.includes(mark.kind as Route["marks"][number])}
              onChange={(event) =>
                put({
                  ...route,
                  marks: event.target.checked
                    ? [...route.marks, mark.kind as Route["marks"][number]]
                    : route.marks.filter((kind) => kind !== mark.kind),
                })
              }
            />
            {mark.words}
          </label>
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="w-28">only for</span>
        {accounts.map((account) => (
          <label key={account.id} className="flex min-h-6 items-center gap-1.5">
            <input
              type="checkbox"
              className="min-h-0"
              checked={route.accounts.includes(account.id)}
              onChange={(event) =>
                put({
                  ...route,
                  accounts: event.target.checked
                    ? [...route.accounts, account.id]
                    : route.accounts.filter((id) => id !== account.id),
                })
              }
            />
            {account.name}
          </label>
        ))}
        <span className="text-faint text-note">none ticked: all bank accounts</span>
      </div>
    </fieldset>
  );
}
