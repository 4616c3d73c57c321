import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { Field } from "../parts/Field";
import { Loaded } from "../parts/Loaded";
import { Refusal } from "../parts/Refusal";
import { ChoiceWord } from "../parts/Word";
import { BesideRow } from "./BesideRow";
import { PaidRows } from "./PaidRows";
import { useRecording } from "./useRecording";

/** Payments made elsewhere, typed row by row: new ones, or those of a draft anew. */
export function RecordPage() {
  const batch = useParams().batch;
  const ways = useQuery({
    queryKey: ["outside-ways"],
    queryFn: () => call(api.GET("/api/outside/ways")),
  });
  const recorded = useQuery({
    queryKey: ["outside-batch", batch],
    enabled: batch !== undefined,
    queryFn: () =>
      call(api.GET("/api/outside/batches/{batch}", { params: { path: { batch: Number(batch) } } })),
  });
  if (batch === undefined) return <Loaded query={ways}>{(found) => <Recorder ways={found} />}</Loaded>;
  return (
    <Loaded query={recorded}>
      {(given) => (
        <Loaded query={ways}>
          {(found) =>
            given.editable ? (
              <Recorder key={`${given.batch} ${given.version}`} ways={found} recorded={given} />
            ) : (
              <p className="text-faint p-4">
                “{given.name}” is {given.stateWords}, so what it records stays as it is.
              </p>
            )
          }
        </Loaded>
      )}
    </Loaded>
  );
}

const wayWords = (one: Schemas["OutsideWay"]) =>
  one.recordedOnly ? one.name : `${one.name}, one of them written by hand`;

function Recorder({ ways, recorded }: { ways: Schemas["OutsideWay"][]; recorded?: Schemas["OutsideBatch"] }) {
  const { roles } = useSession();
  const recording = useRecording(ways, recorded);
  const [at, setAt] = useState(0);
  const { typed, way, change, look, count, record } = recording;
  if (!way)
    return (
      <p className="text-faint p-4">
        There is no way to record yet. An administrator adds wires, a company card or a check book to a bank
        account.
      </p>
    );
  const clerk = roles.includes("CLERK");
  const row = typed.rows[at] ?? typed.rows[0]!;
  const what = `${count} ${count === 1 ? "payment" : "payments"}`;
  return (
    <Station
      title="Record payments made elsewhere"
      sentence={
        <>
          Record {recorded ? <>anew what “{recorded.name}” holds, </> : "what was paid elsewhere by "}
          {recorded ? (
            <b>{way.name}</b>
          ) : (
            <ChoiceWord
              name="Way"
              text={wayWords(way)}
              value={String(way.way)}
              choices={ways.map((one) => ({
                value: String(one.way),
                text: wayWords(one),
                detail: `${one.accountName}, ${one.currency}`,
              }))}
              onChange={(next) => change({ way: Number(next) })}
            />
          )}{" "}
          from <b>{way.accountName}</b>; numbers are {way.numberSays}.
        </>
      }
      answer={
        <>
          <Figure value={count}>{count === 1 ? "payment" : "payments"}</Figure>
          {look.data?.total && <Figure value={`${look.data.total} ${way.currency}`} />}
          {look.data && look.data.problems > 0 && (
            <Figure value={look.data.problems} look="text-rust">
              cannot be recorded so
            </Figure>
          )}
          <span className="ml-auto">
            Tab goes on · Enter begins the next row · Ctrl D repeats the field above
          </span>
        </>
      }
      list={
        <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto p-5">
          <PaidRows recording={recording} at={at} onAt={setAt} />
          <div className="grid grid-cols-2 gap-3">
            <Field label="What this batch is called; empty: as its way and day" small>
              <input
                maxLength={80}
                value={typed.name}
                onChange={(event) => change({ name: event.target.value })}
              />
            </Field>
            <Field label="A note for whoever agrees to it" small>
              <input
                maxLength={300}
                value={typed.note}
                onChange={(event) => change({ note: event.target.value })}
              />
            </Field>
          </div>
          {look.error && <p className="callout-wrong">{look.error.message}</p>}
          <Refusal deed={record} />
        </div>
      }
      bar={
        clerk && (
          <>
            <span className="text-faint text-note">
              {recorded
                ? "All of them stay on one day."
                : "One batch for each day, posted once somebody agreed."}
            </span>
            <span className="ml-auto flex gap-2">
              <Button onClick={() => recording.forget()}>Clear</Button>
              <Button
                look={recorded ? "deed" : "plain"}
                disabled={count === 0 || record.busy}
                onClick={() => void record.must(false).catch(() => undefined)}
              >
                Record {what}
              </Button>
              {!recorded && (
                <Button
                  look="deed"
                  disabled={count === 0 || record.busy}
                  onClick={() => void record.must(true).catch(() => undefined)}
                >
                  Record and send for approval
                </Button>
              )}
            </span>
          </>
        )
      }
      slip={
        <BesideRow
          row={row}
          seen={recording.seen(at)}
          onSaid={(said) =>
            recording.setRows((rows) => rows.map((one, i) => (i === at ? { ...one, said } : one)))
          }
        />
      }
    />
  );
}
