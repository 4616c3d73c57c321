import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { api, call } from "../api/client";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { SessionList } from "./SessionList";
import { Field } from "../parts/Field";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";

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

/** Another password of one's own; everyone else's sessions of it end. */
export function Password() {
  const queries = useQueryClient();
  const [old, setOld] = useState("");
  const [password, setPassword] = useState("");
  const changing = useDeed(() => call(api.POST("/api/session/password", { body: { old, password } })), {
    done: async () => {
      setOld("");
      setPassword("");
      await queries.invalidateQueries();
    },
    said: () => "Your password is changed; your other sessions ended.",
  });
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void changing.must().catch(() => undefined);
      }}
    >
      <h2 className="text-base font-bold">Change your password</h2>
      <Field label="Present password">
        <input
          type="password"
          autoComplete="current-password"
          value={old}
          onChange={(event) => setOld(event.target.value)}
        />
      </Field>
      <Field label="New password, 12 characters or more, none of the common ones">
        <input
          type="password"
          autoComplete="new-password"
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
      </Field>
      <Button type="submit" look="deed" className="self-start" disabled={!old || !password || changing.busy}>
        Change the password
      </Button>
      <Refusal deed={changing} />
    </form>
  );
}
