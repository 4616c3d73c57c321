import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { Dialog } from "../parts/Dialog";
import { NameDeputy } from "./NameDeputy";
import { useDeed } from "../parts/useDeed";
import { Grid, type Column } from "../parts/Grid";

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
      strip={
        <Dialog open={naming} onClose={() => setNaming(false)} title="Name a deputy">
          <NameDeputy onClose={() => setNaming(false)} />
        </Dialog>
      }
    />
  );
}
