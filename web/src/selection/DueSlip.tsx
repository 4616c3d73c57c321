import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { dayMonth } from "../parts/dates";
import { Face } from "../parts/Face";
import { useRest } from "../parts/useRest";
import type { Question } from "./criteria";

/** The claim under the cursor as it will be paid, and the discount clock of the invoice. */
export function DueSlip({ question, invoice }: { question: Question; invoice: number | undefined }) {
  const rested = useRest(invoice);
  const slip = useQuery({
    queryKey: ["due-slip", question, rested],
    enabled: rested !== undefined,
    queryFn: () => call(api.GET("/api/slips/due", { params: { query: { ...question, invoice: rested! } } })),
    placeholderData: keepPreviousData,
  });
  if (invoice === undefined)
    return (
      <p className="text-faint">
        Move the cursor onto an invoice: its payment appears here as the check it will become.
      </p>
    );
  if (slip.error && !slip.data) return <p className="text-rust">{slip.error.message}</p>;
  if (!slip.data) return null;
  return (
    <div className="flex flex-col gap-4">
      <h2 className="font-semibold">{slip.data.title}</h2>
      {slip.data.face && (
        <Face page={slip.data.face} label={`Check to ${slip.data.address[0]}, not a check`} />
      )}
      <section>
        <h3 className="text-faint mb-1 text-note font-semibold">Terms {slip.data.terms}</h3>
        <p>{slip.data.sentence}</p>
        <Clock marks={slip.data.marks} living={slip.data.living} />
      </section>
      <address className="text-faint not-italic">
        {slip.data.address.map((line, i) => (
          <div key={i}>{line}</div>
        ))}
      </address>
    </div>
  );
}

/** From the invoice to its due date: green while the discount lives, a mark where it is paid. */
function Clock({ marks, living }: { marks: Schemas["Mark"][]; living: number }) {
  return (
    <svg
      viewBox="0 0 372 68"
      className="mt-3 w-full"
      role="img"
      aria-label={marks.map((m) => `${m.words} ${dayMonth(m.date)}`).join(", ")}
    >
      <line x1="20" y1="24" x2="352" y2="24" stroke="var(--faint)" />
      {living > 0 && <rect x="20" y="21" width={(332 * living) / 100} height="6" fill="var(--green)" />}
      {marks.map((mark, i) => {
        const x = 20 + (332 * mark.at) / 100;
        const pay = mark.words === "pay";
        // three rows, so that near dates do not run into each other
        const anchor = mark.at < 12 ? "start" : mark.at > 88 ? "end" : "middle";
        return (
          <g key={i} fill={pay ? "var(--harbour)" : "var(--faint)"}>
            <line
              x1={x}
              x2={x}
              y1={pay ? 16 : 19}
              y2={pay ? 34 : 29}
              stroke={pay ? "var(--harbour)" : "var(--ink)"}
              strokeWidth={pay ? 3 : 1}
            />
            <text
              x={anchor === "start" ? 14 : anchor === "end" ? 358 : x}
              y={pay ? 48 : mark.words === "discount" ? 64 : 12}
              fontSize="12"
              textAnchor={anchor}
              fontWeight={pay ? 700 : 400}
            >
              {mark.words} {dayMonth(mark.date)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
