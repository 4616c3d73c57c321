import { useQuery } from "@tanstack/react-query";
import { useMemo, useState, type ReactNode } from "react";
import { api, call, type Schemas } from "../api/client";
import { TrailFold } from "../audit/TrailOf";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { AccountList } from "./AccountList";
import { ChangeAccount, GiveRole, NewAccount } from "./AccountForms";

type Account = Schemas["AccountView"];

const COLUMNS: Column<Account>[] = [
  {
    key: "code",
    title: "Code",
    width: "90px",
    cell: (a) => <span className="font-mono text-note">{a.code}</span>,
  },
  { key: "name", title: "Name", width: "minmax(160px,2fr)", cell: (a) => a.name },
  { key: "kind", title: "Kind", width: "120px", cell: (a) => a.kindWords },
  {
    key: "what-it-is-for",
    title: "What it is for",
    width: "minmax(140px,1.4fr)",
    cell: (a) => a.roles.join("; "),
  },
  {
    key: "closed-from",
    title: "Closed from",
    width: "140px",
    value: (a) => a.closedFrom,
    cell: (a) => (a.closedFrom ? <span className="text-brass">{longDate(a.closedFrom)}</span> : ""),
  },
];

/** The accounts of the ledger, and what each of them is for. */
export function AccountsView({ word }: { word: ReactNode }) {
  const session = useSession();
  const [values, change] = useAddress();
  const [asking, setAsking] = useState<"add" | "list" | "change" | "role">();
  const accounts = useQuery({
    queryKey: ["ledger-accounts"],
    queryFn: () => call(api.GET("/api/ledger-accounts")),
  });
  const items = useMemo(
    () => accounts.data?.map((row) => ({ key: String(row.id), row })) ?? [],
    [accounts.data],
  );
  const at = accounts.data?.find((one) => String(one.id) === values.at);
  const may = session.roles.some((role) => role === "CONTROLLER" || role === "ADMINISTRATOR");
  const close = () => setAsking(undefined);
  return (
    <>
      <Station
        title="Accounts of the ledger"
        sentence={<>The {word} of the ledger, and what each of them is for.</>}
        answer={
          <>
            <Figure value={items.length}>accounts</Figure>
            <MissingRoles accounts={accounts.data ?? []} />
          </>
        }
        list={
          <Loaded query={accounts}>
            {() => (
              <Grid
                list="accounts"
                label="Accounts"
                items={items}
                columns={COLUMNS}
                cursor={values.at}
                onCursor={(key) => change({ at: key })}
                onEnter={() => may && setAsking("change")}
                dim={(one) => !one.open}
                empty="No account yet. Add them one by one, or bring in a list: a code, a name and a kind in each line."
              />
            )}
          </Loaded>
        }
        bar={
          may ? (
            <>
              <Button disabled={!at} onClick={() => setAsking("change")}>
                Change…
              </Button>
              <Button disabled={!at} onClick={() => setAsking("role")}>
                Say what it is for…
              </Button>
              <Button className="ml-auto" onClick={() => setAsking("list")}>
                Bring in a list…
              </Button>
              <Button look="deed" onClick={() => setAsking("add")}>
                Add an account…
              </Button>
            </>
          ) : (
            <span className="text-faint text-note">A controller or an administrator changes these.</span>
          )
        }
        slip={
          at ? (
            <div className="flex flex-col gap-2">
              <h2 className="text-base font-bold">
                {at.code} {at.name}
              </h2>
              <p>
                An account of the kind <b>{at.kindWords}</b>
                {at.closedFrom ? <>, closed from {longDate(at.closedFrom)} on</> : <>, open</>}.
              </p>
              {at.roles.length > 0 && <p>It is the account for {at.roles.join(" and ")}.</p>}
              <TrailFold
                key={at.version}
                subject={`ledger account ${at.id}`}
                name={`${at.code} ${at.name}`}
              />
            </div>
          ) : (
            <p className="text-faint">
              Move the cursor onto an account. Payables, discounts taken, prepayments and recovered payments
              are written where this page says.
            </p>
          )
        }
      />
      <NewAccount open={asking === "add"} onClose={close} />
      <AccountList open={asking === "list"} onClose={close} />
      {at && (
        <ChangeAccount
          key={`${at.id} ${at.version}`}
          account={at}
          open={asking === "change"}
          onClose={close}
        />
      )}
      {at && <GiveRole key={at.id} account={at} open={asking === "role"} onClose={close} />}
    </>
  );
}

/** Which roles nobody plays yet. */
function MissingRoles({ accounts }: { accounts: Account[] }) {
  const roles = useQuery({
    queryKey: ["account-roles"],
    queryFn: () => call(api.GET("/api/ledger-accounts/roles")),
  });
  const missing = (roles.data ?? []).filter(
    (role) => !accounts.some((one) => one.roles.some((played) => played.startsWith(role.words))),
  );
  if (missing.length === 0) return null;
  return (
    <span className="text-brass">
      No account yet for {missing.map((role) => role.words.toLowerCase()).join(", ")}.
    </span>
  );
}
