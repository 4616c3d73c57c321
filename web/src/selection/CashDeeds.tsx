import { useQueryClient } from "@tanstack/react-query";
import { api, call } from "../api/client";
import { useState } from "react";
import { DayField } from "../parts/DayField";
import { DeedDialog } from "../parts/DeedDialog";
import { Field } from "../parts/Field";

/** Brings a movement in, or sets the floor. */
export function CashDeeds({
  account,
  doing,
  onClose,
  today,
}: {
  account: number;
  doing: "floor" | "movement" | undefined;
  onClose: () => void;
  today: string;
}) {
  const queries = useQueryClient();
  const [amount, setAmount] = useState("");
  const [text, setText] = useState("");
  const [date, setDate] = useState(today);
  const floor = doing === "floor";
  return (
    <DeedDialog
      open={doing !== undefined}
      onClose={() => {
        setAmount("");
        setText("");
        onClose();
      }}
      title={
        floor ? "The cash the company keeps on this account" : "A cash movement the ledger does not know yet"
      }
      deed={floor ? "Keep this floor" : "Bring it in"}
      run={async () => {
        const path = { params: { path: { id: account } } };
        if (floor)
          await call(api.POST("/api/bank-accounts/{id}/floor", { ...path, body: { floor: amount } }));
        else
          await call(
            api.POST("/api/bank-accounts/{id}/movements", { ...path, body: { date, text, amount } }),
          );
        await queries.invalidateQueries();
      }}
    >
      <div className="flex flex-col gap-3">
        {!floor && (
          <>
            <DayField label="Day at the bank" value={date} onDay={(day) => setDate(day ?? "")} />
            <Field label="What it is">
              <input value={text} maxLength={120} onChange={(event) => setText(event.target.value)} />
            </Field>
          </>
        )}
        <label className="flex flex-col gap-1">
          <span className="text-faint">{floor ? "Floor" : "Amount; a minus for what left the account"}</span>
          <input
            inputMode="decimal"
            className="text-right"
            value={amount}
            onChange={(event) => setAmount(event.target.value)}
          />
        </label>
      </div>
    </DeedDialog>
  );
}
