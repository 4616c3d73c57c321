import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { OpenBankAccount } from "./OpenBankAccount";

const COLUMNS: Column<Schemas["BankAccountView"]>[] = [
  { key: "account", title: "Account", width: "minmax(140px,1.2fr)", cell: (a) => a.name },
  { key: "bank", title: "Bank", width: "minmax(140px,1.2fr)", cell: (a) => a.bankName },
  { key: "currency", title: "Currency", width: "80px", cell: (a) => a.currency },
  {
    key: "pays-by",
    title: "Pays by",
    width: "minmax(140px,1.4fr)",
    cell: (a) => a.ways.map((way) => way.name).join(", "),
  },
  { key: "positive-pay", title: "Positive pay", width: "100px", cell: (a) => (a.positivePay ? "on" : "off") },
  { key: "floor", title: "Floor", width: "120px", right: true, cell: (a) => a.floor },
  {
    key: "closed",
    title: "Closed",
    width: "140px",
    value: (a) => a.closedOn,
    cell: (a) => (a.closedOn ? <span className="text-brass">{longDate(a.closedOn)}</span> : ""),
  },
];

/** The bank accounts, open and closed. */
export function BankAccountsPage() {
  const session = useSession();
  const navigate = useNavigate();
  const [values, change] = useAddress();
  const [opening, setOpening] = useState(false);
  const accounts = useQuery({
    queryKey: ["bank-accounts", "all"],
    queryFn: () => call(api.GET("/api/bank-accounts", { params: { query: { closed: true } } })),
  });
  const rows = accounts.data ?? [];
  return (
    <>
      <Station
        title="Bank accounts"
        sentence={<>The bank accounts that payments leave from, with their series and ways to pay.</>}
        answer={<Figure value={rows.filter((one) => !one.closedOn).length}>open</Figure>}
        list={
          <Loaded query={accounts}>
            {(data) => (
              <Grid
                list="bank-accounts"
                label="Bank accounts"
                items={data.map((row) => ({ key: String(row.id), row }))}
                columns={COLUMNS}
                cursor={values.at}
                onCursor={(at) => change({ at })}
                onEnter={(key) => navigate(`/bank-accounts/${key}`)}
                dim={(one) => Boolean(one.closedOn)}
                empty="No bank account yet. Its cash needs an account of the ledger of the kind cash first."
              />
            )}
          </Loaded>
        }
        bar={
          <>
            <span className="text-faint text-note">Enter or a double click opens an account.</span>
            {session.roles.includes("ADMINISTRATOR") ? (
              <Button look="deed" className="ml-auto" onClick={() => setOpening(true)}>
                Open an account…
              </Button>
            ) : (
              <span className="text-faint ml-auto text-note">An administrator opens and changes these.</span>
            )}
          </>
        }
      />
      <OpenBankAccount open={opening} onClose={() => setOpening(false)} />
    </>
  );
}
