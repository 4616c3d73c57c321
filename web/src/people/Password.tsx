import { useQueryClient } from "@tanstack/react-query";
import { api, call } from "../api/client";
import { Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";

/** Another password of one's own; its other sessions end. `first`: it is what the page is for. */
export function Password({ first = false }: { first?: boolean }) {
  const queries = useQueryClient();
  const form = useKeptForm(
    "own password",
    { old: "", password: "" },
    (body) => call(api.POST("/api/session/password", { body })),
    {
      secret: ["old", "password"],
      done: () => queries.invalidateQueries(),
      said: () => "Your password is changed; your other sessions ended.",
    },
  );
  return (
    <section aria-labelledby="own-password">
      <h2 id="own-password" className="mb-3 text-base font-bold">
        Change your password
      </h2>
      <Form form={form} label="Password" deed="Change the password" className="gap-3">
        <Entry
          name="old"
          type="password"
          label="Present password"
          autoComplete="current-password"
          autoFocus={first}
          required
        />
        <Entry
          name="password"
          type="password"
          label="New password, 12 characters or more, none of the common ones"
          autoComplete="new-password"
          required
        />
      </Form>
    </section>
  );
}
