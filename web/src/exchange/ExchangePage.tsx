import { useInfiniteQuery, useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { AccountWord } from "../bankfiles/AccountWord";
import { useExchange } from "../bankfiles/Sending";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { useDeed } from "../parts/useDeed";
import { CameSlip, SentSlip } from "./ExchangeSlips";
import { STATES } from "./states";

type Incoming = Schemas["IncomingView"];

const PAGE = 200;

const COLUMNS: Column<Incoming>[] = [
  {
    key: "name",
    title: "File",
    width: "minmax(236px,1.5fr)",
    cell: (i) => <span className="font-mono">{i.name}</span>,
  },
  {
    key: "is",
    title: "What it is",
    width: "minmax(130px,1fr)",
    words: (i) => i.is,
    cell: (i) => i.is || <span className="text-brass">nobody said</span>,
  },
  { key: "came", title: "Came", width: "132px", value: (i) => i.fetchedAt, cell: (i) => clock(i.fetchedAt) },
  {
    key: "state",
    title: "State",
    width: "84px",
    words: (i) => STATES[i.state] ?? i.state,
    cell: (i) => <span className={i.state === "WAITING" ? "text-brass" : ""}>{STATES[i.state]}</span>,
  },
  {
    key: "said",
    title: "What became of it",
    width: "minmax(200px,2.4fr)",
    words: (i) => i.said,
    cell: (i) => <span className={i.state === "WAITING" && i.said ? "text-rust" : ""}>{i.said}</span>,
  },
];

/** What travels between the company and a bank: files on their way, and what the bank laid for us. */
export function ExchangePage() {
  const accounts = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
  });
  return <Loaded query={accounts}>{(data) => <Travelling accounts={data} />}</Loaded>;
}

function Travelling({ accounts }: { accounts: Schemas["BankAccountView"][] }) {
  const session = useSession();
  const clerk = session.roles.includes("CLERK");
  const [values, change] = useAddress();
  const account = accounts.find((one) => String(one.id) === values.account) ?? accounts[0];
  const travelling = useExchange(account?.id);
  const data = travelling.data;
  const incoming = useInfiniteQuery({
    queryKey: ["bank-incoming", account?.id],
    enabled: account !== undefined,
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      call(
        api.GET("/api/bank-accounts/{id}/exchange/incoming", {
          params: { path: { id: account!.id }, query: { after: pageParam } },
        }),
      ),
    getNextPageParam: (page) => (page.length === PAGE ? page.at(-1)?.id : undefined),
  });
  const rows = useMemo(() => incoming.data?.pages.flat() ?? [], [incoming.data]);
  const at = rows.find((one) => String(one.id) === values.at);
  const stuck =
    data?.sendings.filter((one) => !one.answered && (one.state === "STUCK" || one.state === "UNKNOWN")) ?? [];
  if (!account) return <p className="text-faint p-8">No bank account is set up.</p>;
  return (
    <Station
      title="What travels"
      sentence={
        <>
          Files of{" "}
          <AccountWord
            account={account}
            accounts={accounts}
            onChange={(value) => change({ account: value, at: undefined })}
          />{" "}
          {data?.by ? (
            <>
              travel by <b>{data.by}</b>.
            </>
          ) : (
            <>are carried by people.</>
          )}
        </>
      }
      answer={
        data && (
          <>
            <Figure value={data.waiting}>
              {data.waiting === 1 ? "file waits" : "files wait"} to be read
            </Figure>
            {stuck.length > 0 && (
              <Link className="text-rust underline" to={`/bank?account=${account.id}`}>
                {stuck.length} not sent
              </Link>
            )}
            {data.untold > 0 && (
              <Figure value={data.untold}>{data.untold === 1 ? "decision" : "decisions"} untold</Figure>
            )}
            {data.lookedAt && <span>looked at {clock(data.lookedAt)}</span>}
            {data.trouble && <span className="text-rust">{data.trouble}</span>}
            <span className="ml-auto flex gap-4">
              <Link className="go" to={`/bank/paid?account=${account.id}`}>
                What the bank paid
              </Link>
              {data.practice && (
                <Link className="go" to="/bank/practice">
                  The bank to practise on
                </Link>
              )}
            </span>
          </>
        )
      }
      list={
        <Loaded query={incoming}>
          {() => (
            <Grid
              list="bank-incoming"
              label="Files of the bank"
              items={rows.map((row) => ({ key: String(row.id), row }))}
              columns={COLUMNS}
              cursor={values.at}
              onCursor={(key) => change({ at: key })}
              onEnd={() => {
                if (incoming.hasNextPage && !incoming.isFetchingNextPage) void incoming.fetchNextPage();
              }}
              empty={
                !data || data.by
                  ? "The bank has laid nothing there yet. What it lays is fetched by itself every few minutes."
                  : "Nothing travels by itself. An administrator says on the account’s page how files do."
              }
            />
          )}
        </Loaded>
      }
      bar={clerk && data?.by ? <Deeds account={account.id} exchange={data} /> : undefined}
      slip={
        at ? (
          <CameSlip key={at.id} one={at} clerk={clerk} />
        ) : data ? (
          <SentSlip sendings={data.sendings} />
        ) : undefined
      }
    />
  );
}

function told(read: Schemas["IncomingRead"][]): string {
  const well = read.filter((one) => one.read).length;
  const ill = read.length - well;
  return `${well} ${well === 1 ? "file" : "files"} read${ill > 0 ? `; ${ill} not: see beside each why` : ""}.`;
}

function Deeds({ account, exchange }: { account: number; exchange: Schemas["ExchangeView"] }) {
  const queries = useQueryClient();
  const path = { params: { path: { id: account } } };
  const done = () => queries.invalidateQueries();
  const look = useDeed(() => call(api.POST("/api/bank-accounts/{id}/exchange/look", path)), {
    done,
    said: ({ came }) =>
      came === 0 ? "Nothing new lies there." : `${came} ${came === 1 ? "file" : "files"} came.`,
  });
  const read = useDeed(() => call(api.POST("/api/bank-accounts/{id}/exchange/read", path)), {
    done,
    said: told,
  });
  const decide = useDeed(() => call(api.POST("/api/bank-accounts/{id}/exchange/decisions", path)), {
    done,
    said: () => "The decisions are on their way to the bank.",
  });
  return (
    <>
      <Button disabled={look.busy} onClick={() => void look.run()}>
        Look now
      </Button>
      {exchange.untold > 0 && (
        <Button disabled={decide.busy} onClick={() => void decide.run()}>
          Tell the bank {exchange.untold === 1 ? "the decision" : `${exchange.untold} decisions`}
        </Button>
      )}
      <Button
        look="deed"
        className="ml-auto"
        disabled={read.busy || exchange.waiting === 0}
        onClick={() => void read.run()}
      >
        Read what came
      </Button>
    </>
  );
}
