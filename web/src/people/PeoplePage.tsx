import { useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import { Grid, type Column } from "../parts/Grid";
import { PersonChange } from "./PersonChange";
import { PersonQuestions, type Asking } from "./PersonQuestions";
import { PersonSessions } from "./PersonSessions";
import { words, type Member } from "./roles";

const COLUMNS: Column<Member>[] = [
  { key: "name", title: "Name", width: "minmax(140px,1.2fr)", cell: (one) => one.name },
  {
    key: "signs-in-as",
    title: "Signs in as",
    width: "110px",
    cell: (one) => <span className="font-mono text-note">{one.signIn}</span>,
  },
  { key: "roles", title: "Roles", width: "minmax(120px,1.2fr)", cell: (one) => words(one.roles) },
  {
    key: "state",
    title: "State",
    width: "92px",
    cell: (one) => (one.enabled ? "may sign in" : <span className="text-rust">disabled</span>),
  },
  { key: "sessions", title: "Sessions", width: "66px", right: true, cell: (one) => one.sessions || "" },
  {
    key: "last-signed-in",
    title: "Last signed in",
    width: "132px",
    right: true,
    value: (one) => one.lastSignIn,
    cell: (one) => (one.lastSignIn ? clock(one.lastSignIn) : "never"),
  },
];

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
          list="people"
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
              <PersonSessions person={at} />
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
      strip={<PersonQuestions person={at} asking={asking} onClose={() => setAsking(undefined)} />}
    />
  );
}
