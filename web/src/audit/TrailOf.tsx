import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call } from "../api/client";
import { clock } from "../parts/dates";
import { TrailFacts } from "./TrailFacts";

/** Everything that was ever done to one thing, newest first. */
export function TrailOf({ subject }: { subject: string }) {
  const trail = useQuery({
    queryKey: ["trail-of", subject],
    queryFn: () => call(api.GET("/api/trail/of", { params: { query: { subject } } })),
    staleTime: 0,
  });
  if (trail.error && !trail.data) return <p className="text-rust">{trail.error.message}</p>;
  if (trail.data?.length === 0) return <p className="text-faint">Nothing was recorded of it yet.</p>;
  return (
    <ol aria-label="Trail">
      {trail.data?.map((record) => (
        <li key={record.sequence} className="border-hair border-b py-1.5">
          <span className="flex items-baseline gap-2">
            <b>{record.deed}</b>
            <span className="text-faint ml-auto text-note whitespace-nowrap">{clock(record.at)}</span>
          </span>
          <span className="text-faint block text-note">
            {record.who}, from {record.from}
          </span>
          <TrailFacts facts={record.facts} />
        </li>
      ))}
    </ol>
  );
}

/** The trail of one thing, behind its name until somebody asks for it. */
export function TrailFold({ subject, name = subject }: { subject: string; name?: string }) {
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="go min-h-6 cursor-pointer">Trail of {name}</summary>
      {open && <TrailOf subject={subject} />}
    </details>
  );
}
