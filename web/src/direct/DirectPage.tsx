import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { Field } from "../parts/Field";
import { Loaded } from "../parts/Loaded";
import { Refusal } from "../parts/Refusal";
import { ChoiceWord, DayWord } from "../parts/Word";
import { BesideDirect } from "./BesideDirect";
import { DirectRows } from "./DirectRows";
import { ProposedDays } from "./ProposedDays";
import { EMPTY, withDays } from "./rows";
import { useDirect } from "./useDirect";

/** Payments without an invoice, typed row by row or taken from schedules: new ones, or those of a draft anew. */
export function DirectPage() {
  const batch = useParams().batch;
  const ways = useQuery({ queryKey: ["direct-ways"], queryFn: () => call(api.GET("/api/direct/ways")) });
  const made = useQuery({
    queryKey: ["direct-batch", batch],
    enabled: batch !== undefined,
    queryFn: () =>
      call(api.GET("/api/direct/batches/{batch}", { params: { path: { batch: Number(batch) } } })),
  });
  if (batch === undefined) return <Loaded query={ways}>{(found) => <Typist ways={found} />}</Loaded>;
  return (
    <Loaded query={made}>
      {(given) => (
        <Loaded query={ways}>
          {(found) =>
            given.editable ? (
              <Typist key={`${given.batch} ${given.version}`} ways={found} made={given} />
            ) : (
              <p className="text-faint p-4">
                “{given.name}” is {given.stateWords}, so what it pays stays as it is.
              </p>
            )
          }
        </Loaded>
      )}
    </Loaded>
  );
}

function Typist({ ways, made }: { ways: Schemas["DirectWay"][]; made?: Schemas["DirectBatch"] }) {
  const clerk = useSession().roles.includes("CLERK");
  const direct = useDirect(ways, made);
  const [at, setAt] = useState(0);
  const { typed, way, change, look, count, make } = direct;
  if (!way)
    return (
      <p className="text-faint p-4">
        There is no way to pay from here yet. An administrator opens a bank account with one.
      </p>
    );
  const row = typed.rows[at] ?? typed.rows[0] ?? EMPTY;
  const problems = look.data?.problems ?? 0;
  return (
    <Station
      title="Pay without an invoice"
      sentence={
        <>
          {made ? <>Pay with “{made.name}” </> : "Pay without an invoice "}
          by{" "}
          {made ? (
            <b>{way.name}</b>
          ) : (
            <ChoiceWord
              name="Way"
              text={way.name}
              value={String(way.way)}
              choices={ways.map((one) => ({
                value: String(one.way),
                text: one.name,
                detail: `${one.accountName}, ${one.currency}`,
              }))}
              onChange={(next) => change({ way: Number(next) })}
            />
          )}{" "}
          from <b>{way.accountName}</b> on{" "}
          <DayWord
            name="Check date"
            text={longDate(typed.checkDate)}
            value={typed.checkDate}
            onChange={(day) => day && change({ checkDate: day })}
          />
          .
        </>
      }
      answer={
        <>
          <Figure value={count}>{count === 1 ? "payment" : "payments"}</Figure>
          {look.data?.total && <Figure value={`${look.data.total} ${way.currency}`} />}
          {problems > 0 && (
            <Figure value={problems} look="text-rust">
              cannot be paid so
            </Figure>
          )}
          <span className="ml-auto">
            Tab goes on · Enter begins the next row · Ctrl D repeats the field above
          </span>
        </>
      }
      list={
        <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto p-5">
          <DirectRows direct={direct} at={at} onAt={setAt} />
          <div className="grid grid-cols-2 gap-3">
            <Field label="What this batch is called; empty: as its day" small>
              <input
                maxLength={80}
                value={typed.name}
                onChange={(event) => change({ name: event.target.value })}
              />
            </Field>
            <Field label="A note for whoever approves it" small>
              <input
                maxLength={300}
                value={typed.note}
                onChange={(event) => change({ note: event.target.value })}
              />
            </Field>
          </div>
          {look.error && <p className="callout-wrong">{look.error.message}</p>}
          <Refusal deed={make} />
        </div>
      }
      bar={
        clerk && (
          <>
            <span className="text-faint text-note">One batch, of one way and one day.</span>
            <span className="ml-auto flex gap-2">
              <Button onClick={() => direct.forget()}>Clear</Button>
              <Button
                look={made ? "deed" : "plain"}
                disabled={count === 0 || make.busy}
                onClick={() => void make.must(false).catch(() => undefined)}
              >
                {made ? "Keep what it pays" : "Make the batch"}
              </Button>
              {!made && (
                <Button
                  look="deed"
                  disabled={count === 0 || make.busy}
                  onClick={() => void make.must(true).catch(() => undefined)}
                >
                  Make it and send it for approval
                </Button>
              )}
            </span>
          </>
        )
      }
      slip={
        <div className="flex flex-col gap-5">
          <ProposedDays
            way={way}
            rows={typed.rows}
            onTake={(days) => direct.setRows((rows) => withDays(rows, days))}
          />
          <BesideDirect
            row={row}
            way={way}
            seen={direct.seen(at)}
            clerk={clerk}
            onPayee={(vendor) =>
              direct.setRows((rows) => rows.map((one, i) => (i === at ? { ...one, vendor } : one)))
            }
          />
        </div>
      }
    />
  );
}
