import { useState } from "react";
import type { Schemas } from "../api/client";
import { DeedDialog } from "../parts/DeedDialog";
import { Field } from "../parts/Field";

/** The amount to pay on one invoice of a batch that was sent: it becomes a draft again. In a draft one types in the cell. */
export function PayPart({
  line,
  digit,
  onClose,
  run,
}: {
  line: Schemas["LineView"];
  digit: string;
  onClose: () => void;
  run: (cash: string | null) => Promise<void>;
}) {
  const [cash, setCash] = useState(digit || line.cash);
  return (
    <DeedDialog
      open
      onClose={onClose}
      title={`Pay on ${line.reference}, open ${line.open}`}
      deed={cash.trim() === "" ? "Pay all of it" : `Pay ${cash.trim()}`}
      run={() => run(cash.trim() === "" ? null : cash)}
    >
      <Field label="Amount to pay; leave it empty to pay all">
        <input
          value={cash}
          inputMode="decimal"
          autoFocus
          className="text-right"
          onFocus={(event) => digit === "" && event.target.select()}
          onChange={(event) => setCash(event.target.value)}
        />
      </Field>
      <p className="callout mt-3">
        This batch was sent for approval. A change makes it a draft again, and it must be approved anew.
      </p>
    </DeedDialog>
  );
}
