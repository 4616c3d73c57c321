import { useInfiniteQuery, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { AccountWord } from "../bankfiles/AccountWord";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { clock, longDate, shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Facts } from "../parts/Facts";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";

type Movement = Schemas["BankMovementView"];

const standing = (one: Movement) => one.matches.filter((match) => !match.undone);

const COLUMNS: Column<Movement>[] = [
  { key: "day", title: "Day", width: "92px", value: (m) => m.day, cell: (m) => shortDate(m.day) },
  {
    key: "number",
    title: "Check",
    width: "110px",
    cell: (m) => <span className="font-mono">{m.number}</span>,
  },
  { key: "text", title: "What the bank says", width: "minmax(140px,1.4fr)", cell: (m) => m.text },
  {
    key: "is",
    title: "What it is",
    width: "minmax(160px,1.8fr)",
    words: (m) =>
      standing(m)
        .map((match) => match.words)
        .join("; "),
    cell: (m) =>
      m.answered ? (
        standing(m)
          .map((match) => match.words)
          .join("; ")
      ) : (
        <span className="text-brass">waits for an answer</span>
      ),
  },
  {
    key: "out",
    title: "Out",
    width: "104px",
    right: true,
    words: (m) => (m.in ? "" : m.amount.text),
    cell: (m) => (m.in ? "" : m.amount.text),
  },
  {
    key: "in",
    title: "In",
    width: "104px",
    right: true,
    words: (m) => (m.in ? m.amount.text : ""),
    cell: (m) => (m.in ? m.amount.text : ""),
  },
];

/** What the bank told, movement by movement, and what each is. */
export function MovementsPage() {
  const session = useSession();
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const [takingBack, setTakingBack] = useState(false);
  const accounts = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
  });
  const account = accounts.data?.find((one) => String(one.id) === values.account) ?? accounts.data?.[0];
  const report = values.report ? Number(values.report) : undefined;
  const number = values.number;
  const told = useInfiniteQuery({
    queryKey: ["bank-movements", account?.id, report, number],
    enabled: account !== undefined,
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      call(
        api.GET("/api/bank-movements", {
          params: { query: { account: account!.id, report, number, after: pageParam } },
        }),
      ),
    getNextPageParam: (last) => (last.more ? last.movements.at(-1)?.id : undefined),
  });
  const all = told.data?.pages.flatMap((page) => page.movements) ?? [];
  const at = all.find((one) => String(one.id) === values.at);
  return (
    <Station
      title="What the bank told"
      sentence={
        <>
          What the bank told of{" "}
          <AccountWord
            account={account}
            accounts={accounts.data ?? []}
            onChange={(value) => change({ account: value, report: undefined, at: undefined })}
          />
          {number ? `, of check ${number}` : report ? ", in one file" : ""}.
        </>
      }
      answer={
        <>
          <Figure value={all.length}>{all.length === 1 ? "movement" : "movements"} shown</Figure>
          {(report !== undefined || number) && (
            <button
              className="go"
              onClick={() => change({ report: undefined, number: undefined, at: undefined })}
            >
              All of them
            </button>
          )}
          <Link className="go ml-auto" to={`/bank/paid?account=${account?.id ?? ""}`}>
            What waits for an answer
          </Link>
        </>
      }
      list={
        <Loaded query={told}>
          {() => (
            <Grid
              list="bank-movements"
              label="Movements"
              items={all.map((row) => ({ key: String(row.id), row }))}
              columns={COLUMNS}
              cursor={values.at}
              onCursor={(key) => change({ at: key })}
              empty="The bank told nothing yet. Its files are read on the page of what waits for an answer."
            />
          )}
        </Loaded>
      }
      bar={
        <>
          {told.hasNextPage && (
            <Button disabled={told.isFetchingNextPage} onClick={() => void told.fetchNextPage()}>
              Show more
            </Button>
          )}
          {session.roles.includes("CLERK") && (
            <Button className="ml-auto" disabled={!at?.canBeTakenBack} onClick={() => setTakingBack(true)}>
              Take it back…
            </Button>
          )}
          {at && account && (
            <DeedDialog
              open={takingBack}
              onClose={() => setTakingBack(false)}
              title={`Take back what the movement of ${longDate(at.day)} is`}
              deed="Take it back"
              grave
              reason="Why"
              run={async (why) => {
                await call(
                  api.POST("/api/bank-movements/take-back", {
                    body: { account: account.id, movement: at.id, version: at.version, why },
                  }),
                );
                await queries.invalidateQueries();
              }}
            >
              <p>
                It waits for an answer again from today on:{" "}
                {standing(at)
                  .map((one) => one.words)
                  .join("; ")}
                . A check it cleared is outstanding again, an entry made for it is turned; days before today
                stay as they were.
              </p>
            </DeedDialog>
          )}
        </>
      }
      slip={at ? <MovementSlip one={at} /> : undefined}
    />
  );
}

function MovementSlip({ one }: { one: Movement }) {
  const facts: [string, string][] = [
    ["Day", longDate(one.day)],
    [one.in ? "In" : "Out", `${one.amount.text} ${one.amount.currency}`],
    ["Told by", one.file ? `${one.toldBy}, ${one.file}` : one.toldBy],
  ];
  if (one.number) facts.push(["Number", one.number]);
  if (one.text) facts.push(["Text", one.text]);
  if (one.reference) facts.push(["Reference", one.reference]);
  return (
    <div className="flex flex-col gap-4">
      <h2 className="font-semibold">{one.number ? `Check ${one.number}` : one.text || "A movement"}</h2>
      <Facts facts={facts} />
      <h3 className="font-semibold">What it is</h3>
      {one.matches.length === 0 && <p className="text-faint">Nobody said yet.</p>}
      <ul>
        {one.matches.map((match, i) => (
          <li key={i} className={`border-hair border-t py-2 ${match.undone ? "text-faint" : ""}`}>
            <div className="flex justify-between gap-3">
              <span>{match.words}</span>
              <span>{match.amount.text}</span>
            </div>
            <div className="text-faint text-note">
              from {longDate(match.on)} on · {match.by}, {clock(match.at)}
            </div>
            {match.why && <div className="text-note">{match.why}</div>}
            {match.undone && <div className="text-brass text-note">{match.undone}</div>}
          </li>
        ))}
      </ul>
      {!one.answered && <p className="text-brass">{one.open.text} of it waits for an answer.</p>}
    </div>
  );
}
