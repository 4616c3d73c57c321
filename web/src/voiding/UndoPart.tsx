import { useMemo } from "react";
import { useSession } from "../frame/session";
import { MonthsDrawn } from "./MonthsDrawn";
import { UndoDeed, verb } from "./UndoDeed";
import { UndoEffect } from "./UndoEffect";
import { UndoWords } from "./UndoWords";
import { useUndo } from "./useUndo";

/** What undoing one payment would do, beside where it is looked at, and the deed. */
export function UndoPart({ payment, name }: { payment: number; name: string }) {
  const { today } = useSession();
  const undo = useUndo(
    useMemo(() => [payment], [payment]),
    today,
  );
  const { data, error } = undo.would;
  return (
    <section className="border-hair flex flex-col gap-3 border-t pt-3">
      <h3 className="font-semibold">
        If {name} is {data?.paper === false ? "reversed" : "voided"}
      </h3>
      <p className="leading-7">
        {data ? verb(data) : "Undo"} it <UndoWords undo={undo} today={today} />
      </p>
      {error ? (
        <p className="callout-wrong">{error.message}</p>
      ) : (
        data?.payments.map((one) => <UndoEffect key={one.payment} one={one} undo={undo} />)
      )}
      {data && data.months.length > 0 && <MonthsDrawn months={data.months} />}
      <p className="text-faint">Its number stays used, whatever becomes of it.</p>
      <UndoDeed undo={undo} />
    </section>
  );
}
