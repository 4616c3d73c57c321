import { useQuery } from "@tanstack/react-query";
import { api, call } from "../api/client";
import { shortDate } from "../parts/dates";
import type { Question } from "./criteria";

const DAYS = 42;

export function useHorizon(question: Question) {
  return useQuery({
    queryKey: ["horizon", question.account, question.checkDate, question.nextRun],
    queryFn: () => call(api.GET("/api/due/horizon", { params: { query: { ...question, days: DAYS } } })),
    staleTime: 20_000,
  });
}

/** The same as a table; days on which nothing happens are passed over. */
export function HorizonTable({ question }: { question: Question }) {
  const horizon = useHorizon(question);
  if (horizon.error && !horizon.data) return <p className="text-rust">{horizon.error.message}</p>;
  if (!horizon.data) return null;
  const runs = new Map(horizon.data.runs.map((run) => [run.date, run]));
  const days = horizon.data.days.filter((day) => day.count > 0 || day.discounts > 0 || runs.has(day.date));
  return (
    <table className="w-full text-note">
      <caption className="mb-1 text-left text-body font-semibold">
        The coming weeks to {shortDate(horizon.data.days.at(-1)!.date)}
      </caption>
      <thead className="text-faint">
        <tr>
          <th className="text-left font-semibold">Day</th>
          <th className="text-right font-semibold">Due</th>
          <th className="text-right font-semibold">Discounts end</th>
          <th className="text-right font-semibold">Cash after run</th>
        </tr>
      </thead>
      <tbody>
        <tr className="text-rust">
          <th scope="row" className="text-left font-normal">
            late
          </th>
          <td className="text-right">
            {horizon.data.late} <span className="text-faint">({horizon.data.lateCount})</span>
          </td>
          <td />
          <td />
        </tr>
        {days.map((day) => {
          const run = runs.get(day.date);
          return (
            <tr key={day.date} className="border-hair border-t align-top">
              <th scope="row" className="text-left font-normal whitespace-nowrap">
                {shortDate(day.date)}
              </th>
              <td className="text-right">
                {day.count > 0 && (
                  <>
                    {day.due} <span className="text-faint">({day.count})</span>
                  </>
                )}
              </td>
              <td className="text-greentext text-right">
                {day.discounts > 0 && (
                  <>
                    {day.dying} <span className="text-faint">({day.discounts})</span>
                  </>
                )}
              </td>
              <td className={`text-right ${run?.short ? "text-rust font-bold" : ""}`}>
                {run && (
                  <>
                    {run.cash ?? "not known"}
                    <span className="text-faint block font-normal">
                      run pays {run.pays}, saves {run.saves}
                    </span>
                  </>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
