import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { useDeed } from "../parts/useDeed";
import { Amount } from "../workline/Amount";

/** Locks a month, or unlocks it with a reason; what is in the way is named before. */
export function PeriodLock({ period }: { period: Schemas["PeriodView"] }) {
  const session = useSession();
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  const path = { params: { path: { month: period.month } } };
  const closing = useDeed(
    () => call(api.POST("/api/periods/{month}/closing", { ...path, body: { closing: !period.closing } })),
    {
      done: () => queries.invalidateQueries(),
      said: () =>
        period.closing
          ? `${period.name} is open again for everything.`
          : `${period.name} is being closed: clerks finish what is under way in it, and begin nothing new.`,
    },
  );
  if (!session.roles.includes("CONTROLLER"))
    return <span>{period.locked ? "Nothing can be written into it." : "A controller locks it."}</span>;
  const deed = `${period.locked ? "Unlock" : "Lock"} ${period.name}`;
  return (
    <>
      {!period.locked && (
        <Button look="bare" disabled={closing.busy} onClick={() => void closing.run()}>
          {period.closing ? "Let clerks begin in it again" : "Let clerks begin nothing new in it"}
        </Button>
      )}
      <Button look="bare" onClick={() => setAsking(true)}>
        {period.locked ? "Unlock it…" : "Lock it…"}
      </Button>
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={deed}
        deed={deed}
        grave={period.locked}
        reason={period.locked ? "Why it is unlocked" : undefined}
        run={async (reason) => {
          if (period.locked)
            await call(api.POST("/api/periods/{month}/unlock", { ...path, body: { reason } }));
          else await call(api.POST("/api/periods/{month}/lock", path));
          await queries.invalidateQueries();
        }}
      >
        {period.locked ? (
          <p>Entries can be dated in it again; the proof keeps the totals it had while it was locked.</p>
        ) : (
          <>
            <p>Its totals are kept, and nothing more can be dated in it.</p>
            <InTheWay month={period.month} />
          </>
        )}
      </DeedDialog>
    </>
  );
}

function InTheWay({ month }: { month: string }) {
  const found = useQuery({
    queryKey: ["in-the-way", month],
    queryFn: () => call(api.GET("/api/periods/{month}/in-the-way", { params: { path: { month } } })),
    staleTime: 0,
  });
  if (!found.data || found.data.count === 0) return null;
  return (
    <section aria-label="In the way" className="callout mt-3">
      <p>
        <b>{found.data.count}</b>{" "}
        {found.data.count === 1 ? "payment has its number and is" : "payments have their numbers and are"} not
        posted. Post or take out first:
      </p>
      <ul>
        {found.data.first.map((one) => (
          <li key={`${one.batch} ${one.number ?? one.payee}`} className="flex gap-3 py-0.5">
            <span className="w-16 font-mono text-note">{one.number ?? "—"}</span>
            <span className="min-w-0 flex-1 truncate">{one.payee}</span>
            <Amount of={one.amount} />
            <Link className="go" to={`/batches/${one.batch}`}>
              {one.batchName}
            </Link>
          </li>
        ))}
      </ul>
      {found.data.count > found.data.first.length && (
        <p className="text-faint">and {found.data.count - found.data.first.length} more</p>
      )}
    </section>
  );
}

/** Opens the month after the last. */
export function OpenMonth() {
  const queries = useQueryClient();
  const next = useQuery({ queryKey: ["periods", "next"], queryFn: () => call(api.GET("/api/periods/next")) });
  const opening = useDeed(
    (month: string) => call(api.POST("/api/periods/{month}/open", { params: { path: { month } } })),
    {
      done: () => queries.invalidateQueries(),
      failed: () => queries.invalidateQueries({ queryKey: ["periods"] }),
      said: () => "The month is open: documents and payments can be dated in it.",
    },
  );
  if (!next.data?.mayOpen) return null;
  const { month, name } = next.data;
  return (
    <Button look="bare" disabled={opening.busy} onClick={() => void opening.run(month)}>
      Open {name}
    </Button>
  );
}
