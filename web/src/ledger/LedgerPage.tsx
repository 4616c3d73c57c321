import { useQuery } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Station } from "../frame/Station";
import { Download } from "../parts/Download";
import { Loaded } from "../parts/Loaded";
import { ChoiceWord } from "../parts/Word";
import { AccountsView } from "./AccountsView";
import { Entries } from "./Entries";
import { HandOverView } from "./HandOverView";
import { OpenMonth, PeriodLock } from "./PeriodDeeds";
import { TrialBalance } from "./TrialBalance";

const VIEWS = [
  { value: "entries", text: "entries" },
  { value: "balance", text: "trial balance" },
  { value: "accounts", text: "accounts" },
  { value: "hand-over", text: "hand-over" },
];

/** What is shown of the ledger, as the first word of its sentence. */
export function ViewWord({ view, onChange }: { view: string; onChange: (view: string) => void }) {
  return (
    <ChoiceWord
      name="View"
      text={VIEWS.find((one) => one.value === view)?.text ?? "entries"}
      value={view}
      choices={VIEWS}
      onChange={onChange}
    />
  );
}

/** Entries by period, the trial balance, and the accounts. */
export function LedgerPage() {
  const [values, change] = useAddress();
  const periods = useQuery({ queryKey: ["periods"], queryFn: () => call(api.GET("/api/periods")) });
  if (values.view === "accounts")
    return <AccountsView word={<ViewWord view="accounts" onChange={(view) => change({ view })} />} />;
  if (values.view === "hand-over")
    return (
      <HandOverView
        word={<ViewWord view="hand-over" onChange={(view) => change({ view, at: undefined })} />}
      />
    );
  return <Loaded query={periods}>{(data) => <Months periods={data} />}</Loaded>;
}

function Months({ periods }: { periods: Schemas["PeriodView"][] }) {
  const session = useSession();
  const [values, change] = useAddress();
  const month =
    periods.find((p) => p.month === values.month) ??
    periods.find((p) => p.month === session.today.slice(0, 7)) ??
    periods[0];
  const view = values.view === "balance" ? "balance" : "entries";
  const word = <ViewWord view={view} onChange={(next) => change({ view: next })} />;
  if (!month)
    return (
      <Station
        title="Ledger"
        sentence={<>The {word} of the ledger: no month is open yet.</>}
        answer={<OpenMonth />}
        list={<p className="text-faint p-6">Open the first month, and documents can be dated in it.</p>}
      />
    );
  return (
    <Station
      title="Ledger"
      sentence={
        <>
          The {word} of{" "}
          <ChoiceWord
            name="Period"
            text={month.name}
            value={month.month}
            choices={periods.map((p) => ({
              value: p.month,
              text: p.name,
              detail: p.stand,
            }))}
            onChange={(value) => change({ month: value })}
          />
          , {month.stand}.
        </>
      }
      answer={
        <>
          <PeriodLock key={month.month} period={month} />
          <OpenMonth />
          <span className="ml-auto">
            <Download path={`/api/ledger/${month.month}/csv`}>the month as CSV</Download>
          </span>
        </>
      }
      list={view === "balance" ? <TrialBalance month={month.month} /> : <Entries month={month.month} />}
    />
  );
}
