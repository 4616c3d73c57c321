import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { longDate, shortDate } from "../parts/dates";
import { Dialog } from "../parts/Dialog";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { ChoiceWord } from "../parts/Word";
import { Amount } from "../workline/Amount";
import { Ages } from "./Ages";
import { ContactDeeds } from "./ContactDeeds";
import { DormancyForm } from "./DormancyForm";
import { LetterForm } from "./LetterForm";
import { StaleSlip } from "./StaleSlip";

type Check = Schemas["StaleCheck"];

const COLUMNS: Column<Check>[] = [
  {
    key: "number",
    title: "Number",
    width: "84px",
    cell: (check) => <span className="font-mono">{check.name}</span>,
  },
  { key: "payee", title: "Payee", width: "minmax(150px,1.6fr)", cell: (check) => check.payee },
  {
    key: "check-date",
    title: "Check date",
    width: "126px",
    value: (check) => check.checkDate,
    cell: (check) => longDate(check.checkDate),
  },
  { key: "days", title: "Days", width: "56px", right: true, cell: (check) => check.days },
  {
    key: "amount",
    title: "Amount",
    width: "96px",
    right: true,
    words: (check) => check.amount.text,
    cell: (check) => <Amount of={check.amount} />,
  },
  {
    key: "asked",
    title: "Payee asked",
    width: "minmax(150px,1.4fr)",
    words: (check) => askedWords(check),
    cell: (check) => (
      <span className={check.contacts.length ? "" : "text-brass"}>
        {askedWords(check)}
        {check.stopped && <span className="text-rust"> · stopped</span>}
      </span>
    ),
  },
];

function askedWords({ contacts, waits }: Check): string {
  const [last] = contacts;
  return [last ? `${shortDate(last.on)}, ${last.how}` : "not yet", waits && "waits for a second person"]
    .filter(Boolean)
    .join(" · ");
}

/** Checks that payees do not present: how old, how they were asked, and the ways out. */
export function StalePage() {
  const { roles } = useSession();
  const [values, change] = useAddress();
  const [selected, setSelected] = useState(new Set<string>());
  const [writing, setWriting] = useState<"letter" | "years">();
  const days = values.days ? Number(values.days) : undefined;
  const stale = useQuery({
    queryKey: ["stale", days],
    queryFn: () => call(api.GET("/api/stale", { params: { query: { days } } })),
    placeholderData: keepPreviousData,
  });
  const view = stale.data;
  const checks = view?.checks ?? [];
  const at = checks.find((one) => String(one.payment) === values.at);
  const meant = selected.size ? checks.filter((one) => selected.has(String(one.payment))) : at ? [at] : [];
  const policy = view ? `${view.days} days` : "…";
  return (
    <Station
      title="Checks not presented"
      sentence={
        <>
          Checks that are outstanding for more than{" "}
          <ChoiceWord
            name="Age"
            text={days ? `${days} days` : policy}
            value={values.days ?? ""}
            choices={[
              { value: "", text: policy, detail: "by policy" },
              ...[30, 60, 90, 365].map((one) => ({ value: String(one), text: `${one} days` })),
            ]}
            onChange={(next) => {
              setSelected(new Set());
              change({ days: next || undefined, at: undefined });
            }}
          />
          , the oldest first.
        </>
      }
      answer={
        view && (
          <>
            <Figure value={checks.length}>{checks.length === 1 ? "check" : "checks"}</Figure>
            {view.amounts.map((sum) => (
              <Figure key={sum.currency} value={`${sum.text} ${sum.currency}`} />
            ))}
            <Link className="go order-last ml-auto" to="/unclaimed">
              Handed over as unclaimed
            </Link>
            <Figure value={checks.filter((one) => one.contacts.length === 0).length} look="text-brass">
              nobody was asked about
            </Figure>
          </>
        )
      }
      list={
        <Loaded query={stale}>
          {(data) => (
            <Grid
              list="stale"
              label="Checks not presented"
              items={data.checks.map((row) => ({ key: String(row.payment), row }))}
              columns={COLUMNS}
              cursor={values.at}
              onCursor={(key) => change({ at: key })}
              selected={selected}
              onSelect={setSelected}
              empty="No check is outstanding for so long."
            />
          )}
        </Loaded>
      }
      bar={
        <>
          {selected.size > 0 && <Figure value={selected.size}>selected</Figure>}
          {(roles.includes("CLERK") || roles.includes("CONTROLLER")) && <ContactDeeds checks={meant} />}
          {(roles.includes("CONTROLLER") || roles.includes("ADMINISTRATOR")) && (
            <span className="ml-auto flex gap-2">
              <Button onClick={() => setWriting("letter")}>The letter…</Button>
              <Button onClick={() => setWriting("years")}>Years until unclaimed…</Button>
            </span>
          )}
          <Dialog
            open={writing === "letter"}
            onClose={() => setWriting(undefined)}
            title="The letter to payees"
            wide
          >
            <LetterForm onClose={() => setWriting(undefined)} />
          </Dialog>
          <Dialog
            open={writing === "years"}
            onClose={() => setWriting(undefined)}
            title="After how many years a check is unclaimed"
          >
            <DormancyForm onClose={() => setWriting(undefined)} />
          </Dialog>
        </>
      }
      slip={at ? <StaleSlip check={at} /> : view && <Ages ages={view.ages} />}
    />
  );
}
