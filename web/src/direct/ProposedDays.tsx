import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { longDate, shortDate } from "../parts/dates";
import { DayWord } from "../parts/Word";
import type { TypedRow } from "./rows";

/** What falls due by schedules and waits, to be taken in; each time somebody does it. */
export function ProposedDays({
  way,
  rows,
  onTake,
}: {
  way: Schemas["DirectWay"];
  rows: TypedRow[];
  onTake: (days: Schemas["Proposed"][]) => void;
}) {
  const [until, setUntil] = useState<string>();
  const days = useQuery({
    queryKey: ["schedule-days", until],
    placeholderData: keepPreviousData,
    queryFn: () => call(api.GET("/api/schedules/days", { params: { query: { until } } })),
  });
  const by = until ?? days.data?.until ?? "";
  const taken = (day: Schemas["Proposed"]) =>
    rows.some((row) => row.schedule === day.schedule && row.dueOn === day.dueOn);
  const here = (days.data?.days ?? []).filter((day) => day.way === way.way && !taken(day));
  const elsewhere = (days.data?.days ?? []).filter((day) => day.way !== way.way);
  return (
    <section aria-label="From schedules" className="flex flex-col gap-2">
      <p>
        <b>From schedules</b>
        {by && (
          <>
            , due by{" "}
            <DayWord name="Due by" text={longDate(by)} value={by} onChange={(day) => day && setUntil(day)} />
          </>
        )}
      </p>
      {days.error && <p className="callout-wrong">{days.error.message}</p>}
      {days.data && here.length === 0 && (
        <p className="text-faint">
          Nothing {elsewhere.length > 0 ? "more " : ""}waits for {way.name}.
        </p>
      )}
      {here.length > 0 && (
        <>
          <table className="w-full text-note">
            <tbody>
              {here.map((day) => (
                <tr key={`${day.schedule} ${day.dueOn}`} className="border-hair border-t">
                  <td className="py-1">
                    <button
                      type="button"
                      className="go min-h-6 text-left"
                      aria-label={`Take in ${day.name}, due on ${longDate(day.dueOn)}`}
                      onClick={() => onTake([day])}
                    >
                      {day.name}
                    </button>
                  </td>
                  <td className="text-faint">due {shortDate(day.dueOn)}</td>
                  <td className="text-right">{day.amount.text}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Button onClick={() => onTake(here)}>
            Take {here.length === 1 ? "it" : `all ${here.length}`} in
          </Button>
        </>
      )}
      {elsewhere.length > 0 && (
        <p className="text-faint text-note">
          {elsewhere.length} {elsewhere.length === 1 ? "waits" : "wait"} for other ways:{" "}
          {[...new Set(elsewhere.map((day) => day.paidBy))].join("; ")}.
        </p>
      )}
      <p className="text-note">
        <Link className="go" to="/schedules">
          What is paid again and again
        </Link>
      </p>
    </section>
  );
}
