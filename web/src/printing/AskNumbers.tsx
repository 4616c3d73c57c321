import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { DeedDialog } from "../parts/DeedDialog";

/** The first number in the tray, then the numbers and the paper in one deed. */
export function AskNumbers({
  batch,
  printing,
  turn,
  what,
  open,
  onClose,
  onPrinted,
}: {
  batch: number;
  printing: Schemas["PrintingView"];
  /** The serial number of one's own turn. */
  turn: number;
  /** How many checks, in words. */
  what: string;
  open: boolean;
  onClose: () => void;
  onPrinted: (next: Schemas["PrintingView"]) => Promise<void>;
}) {
  const [first, setFirst] = useState("");
  const [fault, setFault] = useState("NONE");
  const [sheet, setSheet] = useState("2");
  const account = { params: { path: { account: printing.account } } };
  const typed = Number(first);
  const ahead = Number.isInteger(typed) && typed > printing.nextNumber;
  return (
    <DeedDialog
      open={open}
      onClose={onClose}
      title={`Print ${what}, ${printing.toNumberAmount}`}
      deed={first ? `Print ${what} from ${first}` : `Print ${what}`}
      reason={ahead ? `Why the numbers ${printing.nextNumber} to ${typed - 1} are skipped` : undefined}
      run={async (reason) => {
        if (fault !== "NONE")
          await call(
            api.POST("/api/bank-accounts/{account}/stand-in-printer", {
              ...account,
              body: { fault: fault as "JAM" | "SMEAR" | "OUT_OF_PAPER", sheet: Number(sheet) },
            }),
          );
        const next = await call(
          api.POST("/api/batches/{id}/print", {
            params: { path: { id: batch } },
            body: { turn, firstNumber: Number(first || 0), reason },
          }),
        );
        setFirst("");
        setFault("NONE");
        await onPrinted(next);
      }}
    >
      <label className="flex flex-col gap-1">
        <span className="text-faint">
          First number in the tray; the next free one is <b className="font-mono">{printing.nextNumber}</b>
        </span>
        <input
          value={first}
          inputMode="numeric"
          pattern="[0-9]{1,12}"
          required
          autoFocus
          className="font-mono text-lg"
          onChange={(event) => setFirst(event.target.value.trim())}
        />
      </label>
      <details className="text-faint mt-3">
        <summary>The printer here is a stand-in. Let it go wrong</summary>
        <div className="mt-2 flex items-center gap-2">
          <select aria-label="Fault" value={fault} onChange={(event) => setFault(event.target.value)}>
            <option value="NONE">all goes well</option>
            <option value="JAM">jam: one sheet torn, the rest blank</option>
            <option value="SMEAR">one sheet smeared</option>
            <option value="OUT_OF_PAPER">out of paper: the rest blank</option>
          </select>
          at sheet
          <input
            aria-label="At sheet"
            className="w-16"
            value={sheet}
            onChange={(event) => setSheet(event.target.value)}
          />
        </div>
      </details>
    </DeedDialog>
  );
}
