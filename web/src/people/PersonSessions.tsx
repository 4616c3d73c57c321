import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, call } from "../api/client";
import type { Member } from "./roles";
import { SessionList } from "./SessionList";

/** Where somebody is signed in; each can be ended. */
export function PersonSessions({ person }: { person: Member }) {
  const queries = useQueryClient();
  const sessions = useQuery({
    queryKey: ["people", person.id, "sessions"],
    queryFn: () => call(api.GET("/api/people/{id}/sessions", { params: { path: { id: person.id } } })),
  });
  return (
    <SessionList
      sessions={sessions.data ?? []}
      end={async (key) => {
        await call(
          api.POST("/api/people/{id}/sessions/{key}/end", { params: { path: { id: person.id, key } } }),
        );
        await queries.invalidateQueries({ queryKey: ["people"] });
      }}
    />
  );
}
