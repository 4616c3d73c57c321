/** What is known of one thing: names and what they are. */
export function Facts({ facts }: { facts: [string, string][] }) {
  return (
    <dl className="grid grid-cols-[90px_1fr] gap-y-1">
      {facts.map(([name, value]) => (
        <div key={name} className="contents">
          <dt className="text-faint">{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}
