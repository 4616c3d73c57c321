import type { Schemas } from "../api/client";

/** How old all outstanding checks are, drawn to the largest amount of a currency. */
export function Ages({ ages }: { ages: Schemas["AgeView"][] }) {
  const currencies = [...new Set(ages.map((age) => age.amount.currency))];
  return (
    <section aria-label="How old outstanding checks are" className="flex flex-col gap-4">
      <h2 className="text-base font-bold">How old outstanding checks are</h2>
      {currencies.length === 0 && <p className="text-faint">No check is outstanding.</p>}
      {currencies.map((currency) => (
        <table key={currency} className="w-full text-note">
          <caption className="text-faint text-left">{currency}</caption>
          <tbody>
            {ages
              .filter((age) => age.amount.currency === currency)
              .map((age) => (
                <tr key={age.words} className="border-hair border-t align-baseline">
                  <td className="w-32 py-1">{age.words}</td>
                  <td>
                    <div className="bg-harbour h-2.5" style={{ width: `${age.share}%` }} aria-hidden />
                  </td>
                  <td className="w-10 text-right">{age.checks}</td>
                  <td className="w-24 text-right font-semibold">{age.amount.text}</td>
                </tr>
              ))}
          </tbody>
        </table>
      ))}
      <p className="text-faint">Move the cursor onto a check: how its payee was asked stands here.</p>
    </section>
  );
}
