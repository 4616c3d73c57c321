import type { Schemas } from "../api/client";

type Month = Schemas["UndoneMonth"];
type Moved = Schemas["MovedView"];

/** What the accounts move in each month that is concerned, before and after; the months that stand are seen to stand. */
export function MonthsDrawn({ months }: { months: Month[] }) {
  return (
    <div className="flex flex-col gap-3">
      {months.map((month) => (
        <section key={month.period} aria-label={month.period}>
          <h4 className="border-hair flex items-baseline gap-2 border-b font-semibold">
            {month.period}
            <span className="text-faint text-note font-normal">
              {month.locked
                ? "locked, does not move"
                : month.lines.some((line) => line.moves)
                  ? "open"
                  : "does not move"}
            </span>
          </h4>
          <ul>
            {month.lines.map((line) => (
              <Line key={`${line.account} ${line.currency}`} line={line} />
            ))}
          </ul>
        </section>
      ))}
      <p className="text-faint text-note">Credits to the left of the line, debits to its right.</p>
    </div>
  );
}

function Line({ line }: { line: Moved }) {
  return (
    <li className="py-0.5">
      <span className="flex justify-between gap-2 text-note">
        <span className="truncate">{line.account}</span>
        <span className="whitespace-nowrap">
          {line.moves ? (
            <>
              <span className="text-faint">{line.before} → </span>
              <b>{line.after}</b>
            </>
          ) : (
            <span className="text-faint">{line.before}</span>
          )}
        </span>
      </span>
      <Bar line={line} />
    </li>
  );
}

const WIDTH = 360;
const MIDDLE = WIDTH / 2;

/** Credits to the left of the middle, debits to the right: a frame for what it was, filled for what it is then. */
function Bar({ line }: { line: Moved }) {
  const at = (place: number) => ({
    x: MIDDLE + Math.min(0, place) * MIDDLE,
    width: Math.max(1, Math.abs(place) * MIDDLE),
  });
  return (
    <svg viewBox={`0 0 ${WIDTH} 8`} className="block h-2 w-full" preserveAspectRatio="none" aria-hidden>
      <line x1={MIDDLE} x2={MIDDLE} y1="0" y2="8" stroke="var(--faint)" strokeWidth="1" />
      {line.moves && <rect {...at(line.to)} y="2" height="4" fill="var(--harbour)" />}
      <rect
        {...at(line.from)}
        y="1"
        height="6"
        fill={line.moves ? "none" : "var(--hair)"}
        stroke="var(--faint)"
        strokeWidth="1"
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
