import type { Schemas } from "../api/client";

/** What a record says besides who did what: before and after, last. */
export function TrailFacts({ facts }: { facts: Schemas["TrailFact"][] }) {
  return (
    <dl className="grid grid-cols-[90px_1fr] gap-x-2 text-note">
      {facts.map((fact) => (
        <div key={fact.name} className="contents">
          <dt className="text-faint">{fact.name}</dt>
          <dd className="min-w-0 break-words">{fact.value || "–"}</dd>
        </div>
      ))}
    </dl>
  );
}

/** The same in one line. */
export function factsInLine(facts: Schemas["TrailFact"][]): string {
  return facts.map((fact) => `${fact.name}: ${fact.value}`).join(" · ");
}
