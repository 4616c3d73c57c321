import { useState } from "react";
import type { Schemas } from "../api/client";
import { dayMonth, shortDate } from "../parts/dates";
import type { Change, Question } from "./criteria";
import type { DueView } from "./useDueList";
import { useHorizon } from "./HorizonTable";

const WIDTH = 1000;

const TOP = 16;

const MIDDLE = 74;

const BOTTOM = 96;

/**
 * The coming weeks drawn: bars up for what falls due, hatched bars down for discounts on their last day, and at each run a
 * mark at the height of the cash left above the floor. A day or a range picked here narrows the list.
 */
export function HorizonStrip({
  question,
  view,
  days,
  change,
}: {
  question: Question;
  view: DueView | undefined;
  days: string | undefined;
  change: Change;
}) {
  const horizon = useHorizon(question);
  const [from, setFrom] = useState<string>();
  if (horizon.error && !horizon.data) return <p className="text-rust p-3">{horizon.error.message}</p>;
  if (!horizon.data) return <div className="border-hair h-[150px] shrink-0 border-b" />;
  const data = horizon.data;
  const step = WIDTH / data.days.length;
  const [first, last] = (days ?? "").split("~");
  const picked = (date: string) => Boolean(first) && date >= first! && date <= (last ?? first!);
  const pick = (date: string, extend: boolean) => {
    const start = extend && from ? from : date;
    if (!extend) setFrom(date);
    change({
      days: start === date ? date : start < date ? `${start}~${date}` : `${date}~${start}`,
      at: undefined,
    });
  };
  const end = last ?? first;
  const beyond = end && view && end > view.dueBy ? end : undefined;
  return (
    <section aria-label="Horizon" className="border-hair shrink-0 border-b px-4 pt-1 pb-2">
      <div className="text-faint flex flex-wrap items-baseline gap-x-4 text-note">
        <span>
          <b className="text-rust">{data.late}</b> late on {data.lateCount}
        </span>
        <span>
          bars up: due · hatched down: discounts on their last day · ▼ cash after each run, dashed: the floor
        </span>
        {days && (
          <span className="ml-auto flex gap-3">
            <b className="text-ink">
              {first === end || !end ? shortDate(first!) : `${shortDate(first!)} to ${shortDate(end)}`}
            </b>
            {beyond && (
              <button type="button" className="go min-h-6" onClick={() => change({ due: beyond })}>
                Ask for what is due by {shortDate(beyond)}
              </button>
            )}
            <button type="button" className="go min-h-6" onClick={() => change({ days: undefined })}>
              Show all days
            </button>
          </span>
        )}
      </div>
      <svg
        viewBox={`0 0 ${WIDTH} 112`}
        className="h-[112px] w-full"
        preserveAspectRatio="none"
        role="presentation"
      >
        <defs>
          <pattern
            id="hatch"
            width="5"
            height="5"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="2.5" height="5" fill="var(--green)" />
          </pattern>
        </defs>
        {data.zero !== undefined && data.zero !== null && (
          <line
            x1="0"
            x2={WIDTH}
            y1={MIDDLE - ((MIDDLE - TOP) * data.zero) / 100}
            y2={MIDDLE - ((MIDDLE - TOP) * data.zero) / 100}
            stroke="var(--rust)"
            strokeDasharray="4 4"
          />
        )}
        <line x1="0" x2={WIDTH} y1={MIDDLE} y2={MIDDLE} stroke="var(--faint)" />
        {data.days.map((day, i) => (
          <Bar key={day.date} day={day} x={i * step} step={step} picked={picked(day.date)} onPick={pick} />
        ))}
        {data.runs.map((run) => {
          const i = data.days.findIndex((day) => day.date === run.date);
          if (i < 0 || run.level === undefined || run.level === null) return null;
          const x = i * step + step / 2;
          const y = MIDDLE - ((MIDDLE - TOP) * run.level) / 100;
          return (
            <g key={run.date} stroke={run.short ? "var(--rust)" : "var(--harbour)"}>
              <line x1={x} x2={x} y1={TOP - 6} y2={MIDDLE} strokeDasharray="2 3" />
              <path
                d={`M${x - 6} ${y - 8} L${x + 6} ${y - 8} L${x} ${y} Z`}
                fill={run.short ? "var(--rust)" : "var(--harbour)"}
              />
            </g>
          );
        })}
      </svg>
      <div className="text-faint relative h-4 text-mark">
        {data.days.map((day, i) =>
          i % 7 === 0 ? (
            <span key={day.date} className="absolute" style={{ left: `${(100 * i) / data.days.length}%` }}>
              {dayMonth(day.date)}
            </span>
          ) : null,
        )}
      </div>
      <ul className="flex flex-wrap gap-x-5 text-note">
        {data.runs.map((run) => (
          <li key={run.date} className={run.short ? "text-rust" : ""}>
            <b>{shortDate(run.date)}</b> pays {run.pays}
            {run.cash && (run.short ? `, short by ${run.cash.replace("-", "")}` : `, leaves ${run.cash}`)}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Bar({
  day,
  x,
  step,
  picked,
  onPick,
}: {
  day: Schemas["HorizonDayView"];
  x: number;
  step: number;
  picked: boolean;
  onPick: (date: string, extend: boolean) => void;
}) {
  const height = ((MIDDLE - TOP) * day.share) / 100;
  const down = ((BOTTOM - MIDDLE) * day.dyingShare) / 100;
  const words = `${shortDate(day.date)}: ${day.count === 0 ? "nothing due" : `${day.count} due, ${day.due}`}${day.discounts > 0 ? `; ${day.discounts} discounts end, ${day.dying}` : ""}`;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={words}
      aria-pressed={picked}
      className="cursor-pointer focus:outline-none [&:focus-visible>rect:first-child]:stroke-[var(--harbour)]"
      onClick={(event) => onPick(day.date, event.shiftKey)}
      onKeyDown={(event) => {
        if (event.key === "Enter" || event.key === " ") {
          event.preventDefault();
          onPick(day.date, event.shiftKey);
        }
        const move =
          event.key === "ArrowRight"
            ? "nextElementSibling"
            : event.key === "ArrowLeft"
              ? "previousElementSibling"
              : undefined;
        if (move) (event.currentTarget[move] as SVGElement | null)?.focus?.();
      }}
    >
      <title>{words}</title>
      <rect
        x={x}
        y={0}
        width={step}
        height={112}
        fill={picked ? "var(--cursor)" : "transparent"}
        strokeWidth="2"
      />
      {day.share > 0 && (
        <rect
          x={x + step * 0.18}
          y={MIDDLE - Math.max(1.5, height)}
          width={step * 0.64}
          height={Math.max(1.5, height)}
          fill="var(--ink)"
        />
      )}
      {day.dyingShare > 0 && (
        <rect
          x={x + step * 0.18}
          y={MIDDLE + 1}
          width={step * 0.64}
          height={Math.max(3, down)}
          fill="url(#hatch)"
          stroke="var(--green)"
          strokeWidth="0.7"
        />
      )}
    </g>
  );
}
