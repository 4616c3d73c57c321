import type { Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import { useDeed } from "../parts/useDeed";

/** Open sessions, each of which can be ended. */
export function SessionList({
  sessions,
  end,
}: {
  sessions: Schemas["OpenSession"][];
  end: (key: string) => Promise<void>;
}) {
  const ending = useDeed(end, { said: () => "The session ended." });
  if (sessions.length === 0) return <p className="text-faint">Not signed in anywhere.</p>;
  return (
    <ul aria-label="Sessions" className="border-hair border-t">
      {sessions.map((one) => (
        <li key={one.key} className="border-hair flex items-center gap-3 border-b py-1.5">
          <span className="min-w-0">
            <span className="block">
              {one.current ? <b>this session</b> : "signed in"} {clock(one.begun)}, last used{" "}
              {clock(one.lastUsed)}
            </span>
            <span className="text-faint block truncate text-note" title={one.from}>
              from {one.from}
            </span>
          </span>
          {!one.current && (
            <Button className="ml-auto" disabled={ending.busy} onClick={() => void ending.run(one.key)}>
              End it
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}
