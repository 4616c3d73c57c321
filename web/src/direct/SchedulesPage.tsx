import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { longDate, shortDate } from "../parts/dates";
import { Dialog } from "../parts/Dialog";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { Amount } from "../workline/Amount";
import { ScheduleForm } from "./ScheduleForm";
import { ScheduleSlip } from "./ScheduleSlip";

type Row = Schemas["ScheduleView"];

const COLUMNS: Column<Row>[] = [
  { key: "name", title: "What", width: "minmax(140px,1.4fr)", cell: (row) => row.name },
  { key: "payee", title: "Payee", width: "minmax(140px,1.4fr)", cell: (row) => row.vendorName },
  { key: "rhythm", title: "How often", width: "132px", cell: (row) => row.rhythmWords },
  {
    key: "amount",
    title: "Amount",
    width: "108px",
    right: true,
    words: (row) => row.amount.text,
    cell: (row) => <Amount of={row.amount} />,
  },
  {
    key: "next",
    title: "Next",
    width: "104px",
    value: (row) => row.nextDay ?? "9999",
    words: (row) => row.nextDay ?? "",
    cell: (row) =>
      row.endedOn ? <span className="text-faint">ended</span> : row.nextDay ? shortDate(row.nextDay) : "none",
  },
  {
    key: "until",
    title: "Until",
    width: "104px",
    value: (row) => row.until ?? "9999",
    words: (row) => row.until ?? "",
    cell: (row) => (row.until ? shortDate(row.until) : <span className="text-faint">no end</span>),
  },
];

/** What is paid again and again: rent, leases. Each time it is proposed, and somebody pays it or passes it over. */
export function SchedulesPage() {
  const [values, change] = useAddress();
  const { roles } = useSession();
  const navigate = useNavigate();
  const [beginning, setBeginning] = useState(false);
  const all = useQuery({ queryKey: ["schedules"], queryFn: () => call(api.GET("/api/schedules")) });
  const rows = all.data?.schedules ?? [];
  const going = rows.filter((row) => !row.endedOn);
  const at = rows.find((row) => String(row.id) === values.at) ?? (rows.length === 1 ? rows[0] : undefined);
  const keeps = roles.includes("CLERK") || roles.includes("CONTROLLER");
  const next = going.flatMap((row) => row.nextDay ?? []).sort()[0];
  return (
    <Station
      title="Schedules"
      sentence={
        <>What is paid again and again without an invoice. Nothing is paid by itself: each day is proposed.</>
      }
      answer={
        <>
          <Figure value={going.length}>{going.length === 1 ? "goes on" : "go on"}</Figure>
          <Figure value={rows.length - going.length}>ended</Figure>
          {next && <Figure value={longDate(next)}>is the next day</Figure>}
        </>
      }
      list={
        <Loaded query={all}>
          {() => (
            <Grid
              list="schedules"
              label="What is paid again and again"
              items={rows.map((row) => ({ key: String(row.id), row }))}
              columns={COLUMNS}
              cursor={values.at}
              onCursor={(key) => change({ at: key })}
              empty="Nothing is kept here yet. Rent, a lease or dues that come back are begun once, and proposed each time they fall due."
            />
          )}
        </Loaded>
      }
      bar={
        keeps && (
          <span className="ml-auto flex gap-2">
            <Button onClick={() => setBeginning(true)}>Begin a schedule…</Button>
            {roles.includes("CLERK") && (
              <Button look="deed" onClick={() => navigate("/direct/new")}>
                Pay what falls due…
              </Button>
            )}
          </span>
        )
      }
      slip={
        <>
          {at ? (
            <ScheduleSlip key={at.id} row={at} rhythms={all.data?.rhythms ?? []} keeps={keeps} />
          ) : (
            <p className="text-faint">Move the cursor onto one.</p>
          )}
          <Dialog open={beginning} onClose={() => setBeginning(false)} title="Begin a schedule" wide>
            <ScheduleForm rhythms={all.data?.rhythms ?? []} onClose={() => setBeginning(false)} />
          </Dialog>
        </>
      }
    />
  );
}
