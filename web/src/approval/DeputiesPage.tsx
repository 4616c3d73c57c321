import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { useDeed } from "../parts/useDeed";
import { Grid, type Column } from "../parts/Grid";
import { Field } from "../parts/Field";
import { DayField } from "../parts/DayField";

type Deputy = Schemas["DeputyView"];

const STATES: Record<string, string> = { NOW: "stands in now", LATER: "to come", OVER: "over" };
const COLUMNS: Column<Deputy>[] = [
  { key: "for", title: "For", width: "minmax(120px,1fr)", cell: (one) => one.person },
  { key: "deputy", title: "Deputy", width: "minmax(120px,1fr)", cell: (one) => <b>{one.deputy}</b> },
  { key: "from", title: "From", width: "122px", value: (one) => one.from, cell: (one) => longDate(one.from) },
  {
    key: "until",
    title: "Until",
    width: "122px",
    value: (one) => one.until,
    cell: (one) => longDate(one.until),
  },
  { key: "state", title: "State", width: "110px", cell: (one) => STATES[one.state] },
];

/** Who answers for whom while they are away. */
export function DeputiesPage() {
  const deputies = useQuery({ queryKey: ["deputies"], queryFn: () => call(api.GET("/api/deputies")) });
  return <Loaded query={deputies}>{(data) => <Named deputies={data} />}</Loaded>;
}

function Named({ deputies }: { deputies: Deputy[] }) {
  const session = useSession();
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const [naming, setNaming] = useState(false);
  const ending = useDeed(
    (one: Deputy) => call(api.POST("/api/deputies/{id}/end", { params: { path: { id: one.id } } })),
    {
      done: () => queries.invalidateQueries(),
      said: (_, one) => `${one.deputy} no longer stands in for ${one.person}.`,
    },
  );
  const at = deputies.find((one) => String(one.id) === values.at);
  const mayName = session.roles.some(
    (role) => role === "APPROVER" || role === "CONTROLLER" || role === "ADMINISTRATOR",
  );
  return (
    <Station
      title="Deputies"
      sentence={<>Who answers for whom, from day to day; the same separations hold for a deputy.</>}
      answer={<Figure value={deputies.filter((one) => one.state === "NOW").length}>stand in today</Figure>}
      list={
        <Grid
          list="deputies"
          label="Deputies"
          items={deputies.map((row) => ({ key: String(row.id), row }))}
          columns={COLUMNS}
          cursor={values.at}
          onCursor={(key) => change({ at: key })}
          dim={(one) => one.state === "OVER"}
          empty="Nobody stands in for anybody. Whoever approves names a deputy here, or an administrator for them."
        />
      }
      bar={
        mayName && (
          <>
            <Button disabled={!at?.mayEnd || ending.busy} onClick={() => void ending.run(at!)}>
              End it now
            </Button>
            <Button look="deed" className="ml-auto" onClick={() => setNaming(true)}>
              Name a deputy…
            </Button>
          </>
        )
      }
      slip={
        at ? (
          <p>
            {at.deputy} answers for {at.person} from {longDate(at.from)} until {longDate(at.until)}; named by{" "}
            {at.namedBy}. What {at.person} prepared, approved or changed, {at.deputy} does not approve for
            them either.
          </p>
        ) : (
          <p className="text-faint">
            A deputy is asked whenever the other is. Every answer says for whom it was given.
          </p>
        )
      }
      strip={<NameDeputy open={naming} onClose={() => setNaming(false)} />}
    />
  );
}

function NameDeputy({ open, onClose }: { open: boolean; onClose: () => void }) {
  const session = useSession();
  const queries = useQueryClient();
  const people = useQuery({ queryKey: ["names"], queryFn: () => call(api.GET("/api/people/names")) });
  const approvers =
    people.data?.filter((one) => one.roles.some((role) => role === "APPROVER" || role === "CONTROLLER")) ??
    [];
  const administrator = session.roles.includes("ADMINISTRATOR");
  const own = approvers.some((one) => one.id === session.personId);
  const [person, setPerson] = useState(session.personId);
  const [deputy, setDeputy] = useState(0);
  const [from, setFrom] = useState(session.today);
  const [until, setUntil] = useState(session.today);
  return (
    <DeedDialog
      open={open}
      onClose={onClose}
      title="Name a deputy"
      deed="Name the deputy"
      run={async () => {
        await call(api.POST("/api/deputies", { body: { person, deputy, from, until } }));
        await queries.invalidateQueries();
        toast("Named. They see at Approval what waits.");
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        <Field label="For">
          <select
            value={person}
            disabled={!administrator}
            onChange={(event) => setPerson(Number(event.target.value))}
          >
            {!own && <option value={session.personId}>choose somebody</option>}
            {approvers.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Deputy">
          <select value={deputy} onChange={(event) => setDeputy(Number(event.target.value))}>
            <option value={0}>choose somebody</option>
            {approvers
              .filter((one) => one.id !== person)
              .map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
          </select>
        </Field>
        <DayField label="From" value={from} onDay={(day) => setFrom(day ?? "")} />
        <DayField label="Until and with" value={until} onDay={(day) => setUntil(day ?? "")} />
      </div>
    </DeedDialog>
  );
}
