import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { longDate, shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { ChoiceWord } from "../parts/Word";

type Row = Schemas["EarlierYear"];

const COLUMNS: Column<Row>[] = [
  { key: "vendor", title: "Vendor", width: "minmax(150px,1.5fr)", cell: (row) => row.vendorName },
  { key: "as", title: "Reported as", width: "minmax(90px,0.8fr)", cell: (row) => row.as },
  { key: "payment", title: "Payment", width: "minmax(110px,1fr)", cell: (row) => row.name },
  {
    key: "paid",
    title: "Paid",
    width: "104px",
    value: (row) => row.checkDate,
    cell: (row) => longDate(row.checkDate),
  },
  {
    key: "undone",
    title: "Undone",
    width: "104px",
    value: (row) => row.undoneOn,
    cell: (row) => longDate(row.undoneOn),
  },
  { key: "amount", title: "Amount", width: "96px", right: true, cell: (row) => row.amount.text },
  {
    key: "then",
    title: "The year",
    width: "118px",
    cell: (row) => (
      <span className={row.chosenBy ? "" : "text-brass"}>
        {row.falls ? "falls" : "stays"}
        {!row.chosenBy && ", not chosen"}
      </span>
    ),
  },
];

/** What was undone after the year it was reported in, and what the controller chose for it. */
export function EarlierYearsPage() {
  const { today, roles } = useSession();
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const [selected, setSelected] = useState(new Set<string>());
  const [asking, setAsking] = useState<"falls" | "stays">();
  const now = Number(today.slice(0, 4));
  const year = Number(values.year) || now - 1;
  const list = useQuery({
    queryKey: ["earlier-years", year],
    queryFn: () => call(api.GET("/api/earlier-years", { params: { query: { year } } })),
  });
  const rows = list.data ?? [];
  const at = rows.find((row) => String(row.payment) === values.at);
  const meant = selected.size ? rows.filter((row) => selected.has(String(row.payment))) : at ? [at] : [];
  const what = meant.length === 1 ? meant[0]!.name : `${meant.length} payments`;
  return (
    <Station
      title="Undone in a later year"
      sentence={
        <>
          What was reported for{" "}
          <ChoiceWord
            name="Year"
            text={String(year)}
            value={String(year)}
            choices={[now - 1, now - 2, now - 3].map((one) => ({ value: String(one), text: String(one) }))}
            onChange={(next) => {
              setSelected(new Set());
              change({ year: next, at: undefined });
            }}
          />{" "}
          and undone later.
        </>
      }
      answer={
        <>
          <Figure value={rows.length}>{rows.length === 1 ? "payment" : "payments"}</Figure>
          <Figure value={rows.filter((row) => !row.chosenBy).length}>not chosen for: the year stays</Figure>
          <Link className="go ml-auto" to={`/reportable?year=${year}`}>
            Reportable payments of {year}
          </Link>
        </>
      }
      list={
        <Loaded query={list}>
          {(data) => (
            <Grid
              list="earlier-years"
              label="Undone in a later year"
              items={data.map((row) => ({ key: String(row.payment), row }))}
              columns={COLUMNS}
              cursor={values.at}
              onCursor={(key) => change({ at: key })}
              selected={selected}
              onSelect={setSelected}
              empty={`Nothing that was reported for ${year} was undone in a later year.`}
            />
          )}
        </Loaded>
      }
      bar={
        roles.includes("CONTROLLER") ? (
          <>
            <Button disabled={meant.length === 0} onClick={() => setAsking("stays")}>
              Leave it as reported…
            </Button>
            <Button look="deed" disabled={meant.length === 0} onClick={() => setAsking("falls")}>
              Let the year fall…
            </Button>
            <DeedDialog
              open={asking !== undefined}
              onClose={() => setAsking(undefined)}
              title={
                asking === "falls" ? `Let ${year} fall by ${what}` : `Leave ${year} as reported with ${what}`
              }
              deed={asking === "falls" ? `Let ${year} fall` : "Leave it as reported"}
              reason="Why, for whoever asks about the year later"
              run={async (reason) => {
                await call(
                  api.POST("/api/earlier-years", {
                    body: {
                      payments: meant.map((row) => row.payment),
                      falls: asking === "falls",
                      reason,
                    },
                  }),
                );
                await queries.invalidateQueries();
                setSelected(new Set());
                toast(asking === "falls" ? `${year} falls by ${what}.` : `${year} stays as it was reported.`);
              }}
            >
              <p>
                {asking === "falls"
                  ? `The totals of ${year} no longer count it; what was reported has to be corrected.`
                  : `The totals of ${year} go on counting it.`}
              </p>
            </DeedDialog>
          </>
        ) : (
          <span className="text-faint text-note">The controller chooses whether the year falls.</span>
        )
      }
      slip={
        at ? (
          <div className="flex flex-col gap-3">
            <h2 className="text-base font-bold">{at.name}</h2>
            <p>
              <Link className="go" to={`/vendors/${at.vendor}`}>
                {at.vendorName}
              </Link>
              , <b>{at.amount.text}</b> {at.amount.currency}, reported for {at.year}, undone on{" "}
              {longDate(at.undoneOn)}.
            </p>
            {at.chosenBy ? (
              <p>
                <b>{at.falls ? `${at.year} falls by it` : `${at.year} stays as reported`}</b>: “{at.reason}”.{" "}
                <span className="text-faint">
                  {at.chosenBy}
                  {at.chosenAt && `, ${shortDate(at.chosenAt.slice(0, 10))}`}
                </span>
              </p>
            ) : (
              <p className="text-brass">Nobody chose yet, so {at.year} stays as it was reported.</p>
            )}
          </div>
        ) : (
          <p className="text-faint">Move the cursor onto a payment.</p>
        )
      }
    />
  );
}
