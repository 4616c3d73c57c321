import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { api, call } from "../api/client";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { SessionList } from "./SessionList";
import { Password } from "./Password";

/** One's own sessions and password. */
export function OwnPage() {
  const session = useSession();
  const queries = useQueryClient();
  const sessions = useQuery({
    queryKey: ["own-sessions"],
    queryFn: () => call(api.GET("/api/session/all")),
  });
  return (
    <Station
      title="Your sessions and password"
      sentence={
        <>
          <b>{session.name}</b>: where you are signed in, and your password.
        </>
      }
      answer={<Figure value={sessions.data?.length ?? 0}>open sessions</Figure>}
      list={
        <div className="min-h-0 flex-1 overflow-auto px-5 py-3" tabIndex={0} data-list>
          <div className="max-w-2xl">
            <Loaded query={sessions}>
              {(data) => (
                <SessionList
                  sessions={data}
                  end={async (key) => {
                    await call(api.POST("/api/session/{key}/end", { params: { path: { key } } }));
                    await queries.invalidateQueries({ queryKey: ["own-sessions"] });
                  }}
                />
              )}
            </Loaded>
          </div>
        </div>
      }
      slip={<Password />}
    />
  );
}
