import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Account } from "../parts/Account";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { LevelStrip } from "../proof/LevelStrip";
import { OneWire } from "./OneWire";
import { useWires, type WireLine, type Wires } from "./useWires";

const STEPS: Record<WireLine["step"], { words: string; look: string }> = {
  WAITS: { words: "waits for the list", look: "text-faint" },
  KEPT_BACK: { words: "kept back", look: "text-brass" },
  LISTED: { words: "to be ordered", look: "text-brass" },
  CONFIRMED: { words: "confirmed", look: "text-greentext" },
  POSTED: { words: "in the ledger", look: "text-faint" },
  UNDONE: { words: "reversed", look: "text-brass" },
};

const COLUMNS: Column<WireLine>[] = [
  { key: "called", title: "Ours", width: "56px", cell: (w) => <span className="font-mono">{w.called}</span> },
  { key: "payee", title: "Payee", width: "minmax(146px,1.1fr)", cell: (w) => w.payee },
  {
    key: "bank",
    title: "Goes to",
    width: "minmax(226px,1fr)",
    cell: (w) => <Account words={w.bank} />,
  },
  { key: "amount", title: "Amount", width: "80px", right: true, cell: (w) => w.amount },
  {
    key: "reference",
    title: "Bank’s reference",
    width: "minmax(100px,0.6fr)",
    cell: (w) => <span className="font-mono text-note">{w.bankReference}</span>,
  },
  { key: "fee", title: "Fee", width: "48px", right: true, cell: (w) => w.fee },
  {
    key: "stands",
    title: "Stands",
    width: "minmax(92px,0.6fr)",
    cell: (w) => (
      <span className={STEPS[w.step].look}>
        {STEPS[w.step].words}
        {w.why && `: ${w.why}`}
      </span>
    ),
  },
];

/** The wires of a batch: onto the list, ordered at the bank one by one, each confirmed with what it said. */
export function WiresPage() {
  const id = Number(useParams().id);
  const batch = useQuery({
    queryKey: ["batch", id],
    queryFn: () => call(api.GET("/api/batches/{id}", { params: { path: { id } } })),
  });
  const wires = useWires(id);
  return (
    <Loaded query={batch}>
      {(of) => <Loaded query={wires}>{(data) => <View key={id} batch={of} wires={data} />}</Loaded>}
    </Loaded>
  );
}

function View({ batch, wires }: { batch: Schemas["BatchView"]; wires: Wires }) {
  const queries = useQueryClient();
  const clerk = useSession().roles.includes("CLERK");
  const [values, change] = useAddress();
  const [selected, setSelected] = useState<Set<string>>(new Set());
  const [asking, setAsking] = useState<"list" | "out">();
  const leave = () => setAsking(undefined);
  const path = { params: { path: { id: batch.id } } };
  const again = () => queries.invalidateQueries();
  const show = async (next: Wires) => {
    queries.setQueryData(["wires", batch.id], next);
    setSelected(new Set());
    await again();
  };
  const at = wires.payments.find((line) => String(line.claim) === values.at);
  const chosen = wires.payments.filter((line) =>
    selected.size > 0 ? selected.has(String(line.claim)) : line === at,
  );
  const removable = wires.listable
    ? chosen.filter((line) => ["WAITS", "KEPT_BACK", "LISTED"].includes(line.step))
    : [];
  const count = (step: WireLine["step"]) => wires.payments.filter((one) => one.step === step).length;
  const listed = count("LISTED");
  const confirmed = count("CONFIRMED");
  const many = `${wires.toList} ${wires.toList === 1 ? "wire" : "wires"}`;
  // after one is confirmed the next that waits is under the cursor
  const next = (done: WireLine) => {
    const waiting = wires.payments.filter((line) => line.step === "LISTED" && line !== done);
    const after = waiting.find((line) => wires.payments.indexOf(line) > wires.payments.indexOf(done));
    change({ at: String((after ?? waiting[0] ?? done).claim) });
  };
  return (
    <Station
      title={`Wires ${batch.name}`}
      sentence={
        <>
          Order <b>{batch.name}</b> by {wires.way} from {wires.accountName}, <b>{batch.stateWords}</b>, for{" "}
          {longDate(batch.checkDate)}.
        </>
      }
      answer={
        <>
          {wires.toList > 0 && (
            <Figure value={wires.toList}>
              for the list, {wires.toListAmount} {wires.currency}
            </Figure>
          )}
          {listed > 0 && (
            <Figure value={listed} look="text-brass">
              to be ordered at the bank
            </Figure>
          )}
          {confirmed > 0 && <Figure value={confirmed}>confirmed, to be posted</Figure>}
          {wires.fees && (
            <Figure value={`${wires.fees} ${wires.currency}`}>asked by the bank for sending them</Figure>
          )}
          <Link className="go ml-auto" to={`/batches/${batch.id}`}>
            The batch
          </Link>
        </>
      }
      list={
        <Grid
          list="wires"
          label="Wires"
          items={wires.payments.map((row) => ({ key: String(row.claim), row }))}
          columns={COLUMNS}
          cursor={values.at}
          onCursor={(key) => change({ at: key })}
          selected={selected}
          onSelect={setSelected}
          empty="No payment of this batch stands any more."
        />
      }
      bar={
        clerk && (
          <>
            {wires.toList > 0 && (
              <Button look="deed" onClick={() => setAsking("list")}>
                Put {many} on the list…
              </Button>
            )}
            {wires.listable && (
              <Button disabled={removable.length === 0} onClick={() => setAsking("out")}>
                Take out…
              </Button>
            )}
            {listed > 0 && (
              <a className="go" href={`/api/batches/${batch.id}/wires/pdf`} target="_blank" rel="noreferrer">
                Print the {listed} to be ordered
              </a>
            )}
            {confirmed > 0 && (
              <Link to={`/post?at=${batch.id}`} className="go ml-auto font-bold">
                {confirmed} confirmed: go to posting
              </Link>
            )}
          </>
        )
      }
      slip={
        at ? (
          <OneWire key={at.claim} line={at} currency={wires.currency} clerk={clerk} onDone={() => next(at)} />
        ) : (
          <p className="text-faint">
            Move the cursor onto a wire: what is typed at the bank’s site appears here, each part with a
            button that copies it.
          </p>
        )
      }
      strip={
        <>
          <LevelStrip batch={batch.id} />
          <DeedDialog
            open={asking === "list"}
            onClose={leave}
            title={`Put ${many} on the list`}
            deed={`Put ${many} on the list`}
            run={async () => show(await call(api.POST("/api/batches/{id}/wires", path)))}
          >
            <p>
              <b>
                {wires.toListAmount} {wires.currency}
              </b>{" "}
              from {wires.accountName}. Each gets its reference. Nothing is ordered by this: you order them at
              the bank’s site, one by one, and write down what it says of each.
            </p>
          </DeedDialog>
          <DeedDialog
            open={asking === "out"}
            onClose={leave}
            title={
              removable.length === 1
                ? `Take out the payment to ${removable[0]!.payee}`
                : `Take ${removable.length} payments out`
            }
            deed={removable.length === 1 ? "Take it out" : "Take them out"}
            grave
            reason="Why, as the trail keeps it"
            run={async (why) =>
              show(
                await call(
                  api.POST("/api/batches/{id}/wires/take-out", {
                    ...path,
                    body: { claims: removable.map((line) => line.claim), why },
                  }),
                ),
              )
            }
          >
            <p>
              Take out only what was not ordered at the bank: what it sent is confirmed, posted and then
              reversed. The other payments go on as they are.
            </p>
          </DeedDialog>
        </>
      }
    />
  );
}
