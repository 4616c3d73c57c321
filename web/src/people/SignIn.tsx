import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { KEPT_LISTS } from "../parts/keptLists";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";

/** The door: name and password; in demo mode the made-up people are offered. */
export function SignIn() {
  const queries = useQueryClient();
  const entering = useDeed(
    (body: { signIn: string; password: string }) => call(api.POST("/api/session", { body })),
    {
      done: () => {
        // whoever sat here before arranged lists for themselves
        queries.removeQueries(KEPT_LISTS);
        return queries.invalidateQueries();
      },
    },
  );
  const door = useQuery({ queryKey: ["door"], queryFn: () => call(api.GET("/api/session/door")) });
  const enter = (signIn: string, password: string) =>
    void entering.must({ signIn, password }).catch(() => undefined);
  return (
    <main className="mx-auto flex min-h-full max-w-3xl flex-col justify-center gap-8 p-8">
      <h1 className="flex items-center gap-3 text-3xl font-bold">
        <img src="/level.svg" alt="" className="h-11 w-11" /> Level Tally
      </h1>
      <div className="grid gap-10 md:grid-cols-2">
        {door.data?.needsFirstAdministrator ? (
          <FirstAdministrator onMade={() => door.refetch()} />
        ) : (
          <form
            className="flex flex-col gap-3"
            onSubmit={(event) => {
              event.preventDefault();
              const form = new FormData(event.currentTarget);
              enter(String(form.get("signIn")), String(form.get("password")));
            }}
          >
            <label className="flex flex-col gap-1">
              Name to sign in with
              <input name="signIn" autoComplete="username" autoFocus required />
            </label>
            <label className="flex flex-col gap-1">
              Password
              <input name="password" type="password" autoComplete="current-password" required />
            </label>
            <Button type="submit" look="deed" className="self-start">
              Sign in
            </Button>
            <Refusal deed={entering} />
          </form>
        )}
        {door.data?.demo && (
          <section>
            <h2 className="mb-1 font-bold">Marrow Bay Ferries, a made-up company</h2>
            <p className="text-faint mb-3">
              It is Thursday 12 November 2026 there. Sign in as one of its people; their password is{" "}
              <span className="font-mono">{door.data.password}</span>.
            </p>
            <ul className="border-hair border-t">
              {door.data.people.map((person) => (
                <li key={person.signIn} className="border-hair border-b">
                  <button
                    type="button"
                    className="hover:bg-cursor flex min-h-9 w-full items-center justify-between px-2 text-left"
                    onClick={() => enter(person.signIn, door.data.password)}
                  >
                    <span className="go font-semibold">{person.name}</span>
                    <span className="text-faint">{person.roles.map((r) => r.toLowerCase()).join(", ")}</span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </main>
  );
}

function FirstAdministrator({ onMade }: { onMade: () => void }) {
  const making = useDeed(
    (body: Schemas["FirstAdministrator"]) => call(api.POST("/api/session/first-administrator", { body })),
    { done: onMade },
  );
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        const form = new FormData(event.currentTarget);
        const field = (name: string) => String(form.get(name) ?? "");
        void making
          .must({
            code: field("code"),
            signIn: field("signIn"),
            name: field("name"),
            password: field("password"),
          })
          .catch(() => undefined);
      }}
    >
      <h2 className="font-bold">Nobody exists yet. Make the first administrator.</h2>
      {[
        ["code", "Setup code", "text"],
        ["signIn", "Name to sign in with", "text"],
        ["name", "Full name", "text"],
        ["password", "Password, 12 characters or more", "password"],
      ].map(([name, label, type]) => (
        <label key={name} className="flex flex-col gap-1">
          {label}
          <input name={name} type={type} required />
        </label>
      ))}
      <Button type="submit" look="deed" className="self-start">
        Make the administrator
      </Button>
      <Refusal deed={making} />
    </form>
  );
}
