import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { api, call, connection } from "../api/client";

const AGAIN_MS = 3_000;

/** A line that stays while the server does not answer, asks until it does, and then shows everything as it is. */
export function Connection() {
  const queries = useQueryClient();
  const there = useSyncExternalStore(connection.subscribe, connection.isThere);
  const slow = useSyncExternalStore(connection.subscribe, connection.isSlow);
  useEffect(() => {
    if (there) return;
    const timer = setInterval(() => {
      void call(api.GET("/api/session/door")).catch(() => undefined);
    }, AGAIN_MS);
    return () => {
      clearInterval(timer);
      // whatever was answered first, this question or a deed: the rest is from before
      void queries.invalidateQueries();
    };
  }, [there, queries]);
  if (there && !slow) return null;
  return (
    <p role="status" className="bg-brass text-sheet relative z-50 shrink-0 px-5 py-1 text-note font-semibold">
      {there
        ? "An answer takes long; it is still waited for. Nothing is asked twice: look at what is shown once it comes."
        : "The server does not answer. What you see is from before; it is asked again every few seconds."}
    </p>
  );
}
