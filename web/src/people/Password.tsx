import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call } from "../api/client";
import { Button } from "../parts/Button";
import { Field } from "../parts/Field";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";

/** Another password of one's own; its other sessions end. `first`: it is what the page is for. */
export function Password({ first = false }: { first?: boolean }) {
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
          autoFocus={first}
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
