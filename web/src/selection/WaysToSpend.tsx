import type { Change } from "./criteria";
import type { DueView } from "./useDueList";

/** The four ways to spend a limit, side by side. */
export function WaysToSpend({ view, change }: { view: DueView; change: Change }) {
  return (
    <section>
      <table className="w-full text-note">
        <caption className="mb-1 text-left text-body font-semibold">Four ways to spend {view.limit}</caption>
        <thead className="text-faint">
          <tr>
            <th className="text-left font-semibold">Way</th>
            <th className="pl-2 text-right font-semibold">Claims</th>
            <th className="pl-2 text-right font-semibold">Spends</th>
            <th className="pl-2 text-right font-semibold">Saves</th>
            <th className="pl-2 text-right font-semibold">Leaves late</th>
          </tr>
        </thead>
        <tbody>
          {view.ways.map((way) => (
            <tr key={way.way} className={`border-hair border-t align-top ${way.chosen ? "bg-cursor" : ""}`}>
              <th scope="row" className="py-1 text-left font-normal">
                <button
                  type="button"
                  aria-pressed={way.chosen}
                  className="go min-h-6 text-left"
                  onClick={() => change({ way: way.way })}
                >
                  {way.words}
                </button>
                {way.chosen && <span className="block font-bold">chosen</span>}
                {way.error && <span className="text-brass block">within {way.error} of the most</span>}
              </th>
              <td className="py-1 pl-2 text-right">{way.claims}</td>
              <td className="py-1 pl-2 text-right">{way.spends}</td>
              <td className="text-greentext py-1 pl-2 text-right">{way.saves}</td>
              <td className="py-1 pl-2 text-right">
                {way.late === 0 ? "none" : way.lateCash}
                {way.late > 0 && <span className="text-faint block">{way.late} claims</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
