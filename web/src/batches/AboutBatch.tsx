import { useState } from "react";
import { DayField } from "../parts/DayField";
import { DeedDialog } from "../parts/DeedDialog";
import { Field } from "../parts/Field";
import { useKept } from "../parts/useKept";
import type { Batch, Deeds, Edits } from "./draftDeeds";

/** Name, note and days of a batch, until numbers are taken; another check date reckons its discounts anew. */
export function AboutBatch({
  batch,
  edits,
  deeds,
  onClose,
}: {
  batch: Batch;
  edits: Edits;
  deeds: Deeds;
  onClose: () => void;
}) {
  const [{ name, note }, type, forget] = useKept(`about ${batch.id}`, { name: batch.name, note: batch.note });
  const [checkDate, setCheckDate] = useState<string | undefined>(batch.checkDate);
  const [ledgerDate, setLedgerDate] = useState<string | undefined>(batch.ledgerDate);
  return (
    <DeedDialog
      open
      onClose={onClose}
      title={`Name, note and days of “${batch.name}”`}
      deed="Keep the change"
      run={async () => {
        await edits.must(
          (v) => deeds.about(v, { name, note, checkDate: checkDate ?? "", ledgerDate: ledgerDate ?? "" }),
          "Changed.",
        );
        forget();
      }}
    >
      <div className="flex flex-col gap-3">
        <Field label="Name">
          <input value={name} maxLength={80} onChange={(event) => type({ name: event.target.value, note })} />
        </Field>
        <Field label="Note">
          <textarea
            rows={2}
            value={note}
            maxLength={500}
            onChange={(event) => type({ name, note: event.target.value })}
          />
        </Field>
        <div className="grid grid-cols-2 gap-3">
          <DayField label="Check date" value={batch.checkDate} onDay={setCheckDate} />
          <DayField label="Ledger date" value={batch.ledgerDate} onDay={setLedgerDate} />
        </div>
        <p className="text-faint">
          Another check date reckons discounts anew and, like any change of amounts, voids an approval.
        </p>
      </div>
    </DeedDialog>
  );
}
