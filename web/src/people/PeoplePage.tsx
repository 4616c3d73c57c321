import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Grid, type Column } from "../parts/Grid";
import { SessionList } from "./SessionList";
import { Field } from "../parts/Field";

type Member = Schemas["MemberView"];
type Role = Member["roles"][number];

const ROLES: [Role, string][] = [
  ["CLERK", "enters invoices, makes and prints batches"],
  ["APPROVER", "approves, strikes, sends back"],
  ["CONTROLLER", "sets routes and months, confirms vendor changes, may approve"],
  ["AUDITOR", "reads and exports everything, changes nothing"],
  ["ADMINISTRATOR", "adds, changes and disables people"],
];
const COLUMNS: Column<Member>[] = [
  { title: "Name", width: "minmax(140px,1.2fr)", cell: (one) => one.name },
  {
    title: "Signs in as",
    width: "110px",
    cell: (one) => <span className="font-mono text-[13px]">{one.signIn}</span>,
  },
  { title: "Roles", width: "minmax(120px,1.2fr)", cell: (one) => words(one.roles) },
  {
    title: "State",
    width: "92px",
    cell: (one) => (one.enabled ? "may sign in" : <span className="text-rust">disabled</span>),
  },
  { title: "Sessions", width: "66px", right: true, cell: (one) => one.sessions || "" },
  {
    title: "Last signed in",
    width: "132px",
    right: true,
    cell: (one) => (one.lastSignIn ? clock(one.lastSignIn) : "never"),
  },
];

function words(roles: string[]): string {
  return roles.map((role) => role.toLowerCase()).join(", ");
}

type Asking = "add" | "change" | "password" | "disable" | "enable";

/** Who may sign in, and what they are trusted with. */
export function PeoplePage() {
  const administrator = useSession().roles.includes("ADMINISTRATOR");
  const people = useQuery({
    queryKey: ["people"],
    enabled: administrator,
    queryFn: () => call(api.GET("/api/people")),
  });
  const changes = useQuery({
    queryKey: ["people", "changes"],
    queryFn: () => call(api.GET("/api/people/changes")),
  });
  return (
    <Loaded query={changes}>
      {(waiting) =>
        administrator ? (
          <Loaded query={people}>{(members) => <Members members={members} changes={waiting} />}</Loaded>
        ) : (
          <Members members={[]} changes={waiting} />
        )
      }
    </Loaded>
  );
}

function Members({ members, changes }: { members: Member[]; changes: Schemas["PersonChangeView"][] }) {
  const session = useSession();
  const [values, change] = useAddress();
  const [asking, setAsking] = useState<Asking>();
  const administrator = session.roles.includes("ADMINISTRATOR");
  const at = members.find((one) => String(one.id) === values.at);
  const self = at?.id === session.personId;
  return (
    <Station
      title="People"
      sentence={
        administrator ? (
          <>Who may sign in, and what each of them is trusted with.</>
        ) : (
          <>Roles and passwords that let money out: what one person gave and a second one confirms.</>
        )
      }
      answer={
        <>
          {administrator && (
            <>
              <Figure value={members.filter((one) => one.enabled).length}>may sign in</Figure>
              <Figure value={members.reduce((sum, one) => sum + one.sessions, 0)}>open sessions</Figure>
            </>
          )}
          {changes.length === 0 && <span>nothing waits for a second person</span>}
          {changes.length > 0 && (
            <Figure value={changes.length} look="text-brass">
              {changes.length === 1 ? "change waits" : "changes wait"} for a second person
            </Figure>
          )}
        </>
      }
      list={
        <Grid
          label="People"
          items={members.map((row) => ({ key: String(row.id), row }))}
          columns={COLUMNS}
          cursor={values.at}
          onCursor={(key) => change({ at: key })}
          onEnter={() => setAsking("change")}
          dim={(one) => !one.enabled}
          empty="Administrators see here who may sign in."
        />
      }
      bar={
        administrator && (
          <>
            <Button disabled={!at} onClick={() => setAsking("change")}>
              Change…
            </Button>
            <Button disabled={!at} onClick={() => setAsking("password")}>
              New password…
            </Button>
            {at && !at.enabled ? (
              <Button onClick={() => setAsking("enable")}>Let in again…</Button>
            ) : (
              <Button disabled={!at || self} onClick={() => setAsking("disable")}>
                Disable…
              </Button>
            )}
            <Button look="deed" className="ml-auto" onClick={() => setAsking("add")}>
              Add somebody…
            </Button>
          </>
        )
      }
      slip={
        <>
          {changes.map((one) => (
            <PersonChange key={one.id} change={one} />
          ))}
          {at ? (
            <div className="flex flex-col gap-3">
              <h2 className="text-base font-bold">{at.name}</h2>
              <p>
                {words(at.roles)}
                {at.email ? `; told by mail at ${at.email}` : "; gets no mail"}.
              </p>
              {self && <p className="text-faint">This is you: somebody else changes your roles.</p>}
              <Sessions person={at} />
            </div>
          ) : (
            <p className="text-faint">
              {administrator
                ? "Move the cursor onto somebody: their sessions appear here."
                : "What waits for a second person appears here."}
            </p>
          )}
        </>
      }
      strip={<Questions person={at} asking={asking} onClose={() => setAsking(undefined)} />}
    />
  );
}

/** Roles that let money out, or the password of who holds them: a second person confirms or refuses. */
function PersonChange({ change }: { change: Schemas["PersonChangeView"] }) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState<"confirm" | "refuse">();
  const path = { params: { path: { id: change.id } } };
  const what = change.password ? "a new password" : `the roles ${words(change.roles)}`;
  const done = async (said: string) => {
    await queries.invalidateQueries();
    toast(said);
  };
  return (
    <section
      aria-label={`Change of ${change.name}`}
      className="border-brass mb-4 flex flex-col gap-2 border-l-4 pl-3"
    >
      <p>
        <b>{change.name}</b> gets {what}, says {change.proposedBy}. It waits for a second person.
      </p>
      {change.mayDecide && (
        <div className="flex gap-2">
          <Button look="deed" onClick={() => setAsking("confirm")}>
            Confirm…
          </Button>
          <Button onClick={() => setAsking("refuse")}>Refuse it…</Button>
        </div>
      )}
      <DeedDialog
        open={asking !== undefined}
        onClose={() => setAsking(undefined)}
        title={asking === "confirm" ? `Give ${change.name} ${what}` : `Refuse ${what} for ${change.name}`}
        deed={asking === "confirm" ? "Confirm the change" : "Refuse the change"}
        run={async () => {
          if (asking === "confirm") {
            await call(api.POST("/api/people/changes/{id}/confirm", path));
            await done(`${change.name} has ${what}; their sessions ended.`);
          } else {
            await call(api.POST("/api/people/changes/{id}/refuse", path));
            await done("Refused; nothing changed.");
          }
        }}
      >
        <p>
          {asking === "confirm"
            ? "You vouch for it together with whoever proposed it. It holds at once."
            : "Everything stays as it is."}
        </p>
      </DeedDialog>
    </section>
  );
}

function Sessions({ person }: { person: Member }) {
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

function Questions({
  person,
  asking,
  onClose,
}: {
  person: Member | undefined;
  asking: Asking | undefined;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const done = async (said: string) => {
    await queries.invalidateQueries();
    toast(said);
  };
  const path = { params: { path: { id: person?.id ?? 0 } } };
  const version = { version: person?.version ?? 0 };
  return (
    <>
      {(asking === "add" || (asking === "change" && person)) && (
        <PersonDialog
          key={asking + (person?.id ?? "")}
          person={asking === "change" ? person : undefined}
          onClose={onClose}
          done={done}
        />
      )}
      {asking === "password" && person && <PasswordDialog person={person} onClose={onClose} done={done} />}
      <DeedDialog
        open={asking === "disable"}
        onClose={onClose}
        title={`Disable ${person?.name}`}
        deed="Disable"
        grave
        run={async () => {
          await call(api.POST("/api/people/{id}/disable", { ...path, body: version }));
          await done(`${person?.name} can no longer sign in.`);
        }}
      >
        <p>Their sessions end at once, and no password lets them in. What they did stays as it is.</p>
      </DeedDialog>
      <DeedDialog
        open={asking === "enable"}
        onClose={onClose}
        title={`Let ${person?.name} in again`}
        deed="Let in"
        run={async () => {
          await call(api.POST("/api/people/{id}/enable", { ...path, body: version }));
          await done(`${person?.name} may sign in again.`);
        }}
      />
    </>
  );
}

function PersonDialog({
  person,
  onClose,
  done,
}: {
  person: Member | undefined;
  onClose: () => void;
  done: (said: string) => Promise<void>;
}) {
  const session = useSession();
  const [signIn, setSignIn] = useState("");
  const [name, setName] = useState(person?.name ?? "");
  const [email, setEmail] = useState(person?.email ?? "");
  const [password, setPassword] = useState("");
  const [roles, setRoles] = useState<Role[]>(person?.roles ?? ["CLERK"]);
  return (
    <DeedDialog
      open
      onClose={onClose}
      title={person ? `Change ${person.name}` : "Add somebody"}
      deed={person ? "Keep the change" : "Add"}
      run={async () => {
        const { waits } = await call(
          person
            ? api.POST("/api/people/{id}", {
                params: { path: { id: person.id } },
                body: { version: person.version, name, email, roles },
              })
            : api.POST("/api/people", { body: { signIn, name, email, password, roles } }),
        );
        await done(
          waits
            ? `${name} is kept. Roles that let money out wait for a second person.`
            : person
              ? `${name} is changed.`
              : `${name} may sign in.`,
        );
      }}
    >
      <div className="flex flex-col gap-3">
        {!person && (
          <Field label="Name to sign in with">
            <input value={signIn} autoComplete="off" onChange={(event) => setSignIn(event.target.value)} />
          </Field>
        )}
        <Field label="Full name">
          <input value={name} maxLength={80} onChange={(event) => setName(event.target.value)} />
        </Field>
        <Field label="Mail address, empty for no mail">
          <input value={email} maxLength={120} onChange={(event) => setEmail(event.target.value)} />
        </Field>
        {!person && (
          <Field label="First password, 12 characters or more, told by another way">
            <input
              type="password"
              autoComplete="new-password"
              value={password}
              onChange={(event) => setPassword(event.target.value)}
            />
          </Field>
        )}
        <fieldset disabled={person?.id === session.personId} className="flex flex-col">
          <legend className="text-faint">Roles</legend>
          {ROLES.map(([role, what]) => (
            <label key={role} className="flex min-h-7 items-center gap-2">
              <input
                type="checkbox"
                className="min-h-0"
                checked={roles.includes(role)}
                onChange={(event) =>
                  setRoles(event.target.checked ? [...roles, role] : roles.filter((one) => one !== role))
                }
              />
              <span className="w-28">{role.toLowerCase()}</span>
              <span className="text-faint text-[13px]">{what}</span>
            </label>
          ))}
        </fieldset>
      </div>
    </DeedDialog>
  );
}

function PasswordDialog({
  person,
  onClose,
  done,
}: {
  person: Member;
  onClose: () => void;
  done: (said: string) => Promise<void>;
}) {
  const [password, setPassword] = useState("");
  return (
    <DeedDialog
      open
      onClose={onClose}
      title={`New password for ${person.name}`}
      deed="Set the password"
      run={async () => {
        const { waits } = await call(
          api.POST("/api/people/{id}/password", {
            params: { path: { id: person.id } },
            body: { password },
          }),
        );
        await done(
          waits
            ? `The password of ${person.name} waits for a second person.`
            : `${person.name} has a new password; their sessions ended.`,
        );
      }}
    >
      <Field label="Password, 12 characters or more, told by another way">
        <input
          type="password"
          autoComplete="new-password"
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
      </Field>
    </DeedDialog>
  );
}
