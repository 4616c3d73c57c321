import { useMemo } from "react";
import { useNavigate } from "react-router";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { Loaded } from "../parts/Loaded";
import { readRanges, writeRanges } from "../parts/ranges";
import { MonthsDrawn } from "./MonthsDrawn";
import { UndoDeed, verb } from "./UndoDeed";
import { UndoEffect } from "./UndoEffect";
import { UndoneList } from "./UndoneList";
import { UndoWords } from "./UndoWords";
import { useUndo } from "./useUndo";

/** Several payments undone in one deed, each shown with its own effect; all or none. */
export function UndoPage() {
  const [values, change] = useAddress();
  const named = values.payments;
  const payments = useMemo(() => [...readRanges(named)], [named]);
  if (payments.length === 0)
    return <p className="text-faint p-4">Select payments in the register, then come here to undo them.</p>;
  return <Several key={named} payments={payments} values={values} change={change} />;
}

function Several({
  payments,
  values,
  change,
}: {
  payments: number[];
  values: Record<string, string | undefined>;
  change: (next: Record<string, string | undefined>) => void;
}) {
  const { today, roles } = useSession();
  const navigate = useNavigate();
  const undo = useUndo(payments, today, values.unclaimed ? "UNCLAIMED" : undefined);
  const view = undo.would.data;
  const cursor = values.at ?? String(payments[0]);
  const one = view?.payments.find((each) => String(each.payment) === cursor);
  const leaveOut = (key: string) =>
    change({ payments: writeRanges(payments.filter((id) => String(id) !== key)), at: undefined });
  return (
    <Station
      title="Undo payments"
      sentence={
        <>
          {view ? verb(view) : "Undo"} <b>{view?.what ?? `${payments.length} payments`}</b>{" "}
          <UndoWords undo={undo} today={today} />
        </>
      }
      answer={
        view && (
          <>
            {view.amounts.map((sum) => (
              <Figure key={sum.currency} value={`${sum.text} ${sum.currency}`} />
            ))}
            {view.refused > 0 && (
              <Figure value={view.refused} look="text-rust">
                cannot be undone so; then none is
              </Figure>
            )}
            {view.byTwo && <span className="text-brass">needs a second person</span>}
          </>
        )
      }
      list={
        <Loaded query={undo.would}>
          {(data) => (
            <UndoneList
              payments={data.payments}
              cursor={cursor}
              onCursor={(at) => change({ at })}
              empty="Nothing is named."
            />
          )}
        </Loaded>
      }
      bar={
        roles.includes("CLERK") && (
          <>
            <UndoDeed undo={undo} done={() => navigate("/register")} />
            {one && payments.length > 1 && (
              <Button onClick={() => leaveOut(cursor)}>Leave {one.name} out</Button>
            )}
          </>
        )
      }
      slip={
        one && view ? (
          <div className="flex flex-col gap-4">
            <h2 className="text-base font-bold">{one.name}</h2>
            <UndoEffect one={one} undo={undo} />
            {view.months.length > 0 && (
              <>
                <h3 className="font-semibold">All of them, by month</h3>
                <MonthsDrawn months={view.months} />
              </>
            )}
          </div>
        ) : (
          <p className="text-faint">Move the cursor onto a payment.</p>
        )
      }
    />
  );
}
