import { useState } from "react";
import { DayField } from "../parts/DayField";
import { DeedDialog } from "../parts/DeedDialog";
import { Field } from "../parts/Field";
import type { Batch, Deeds, Edit } from "./draftDeeds";

/** Name, note and days of a batch, until numbers are taken; another check date reckons its discounts anew. */
export function AboutBatch({
  batch,
  edit,
  deeds,
  onClose,
}: {
  batch: Batch;
  edit: Edit;
  deeds: Deeds;
  onClose: () => void;
}) {
  const [name, setName] = useState(batch.name);
  const [note, setNote] = useState(batch.note);
  const [checkDate, setCheckDate] = useState<string | undefined>(batch.checkDate);
  const [ledgerDate, setLedgerDate] = useState<string | undefined>(batch.ledgerDate);
  return (
    <DeedDialog
      open
      onClose={onClose}
      title={`Name, note and days of “${batch.name}”`}
      deed="Keep the change"
      run={async () => {
        // a refusal stays in the dialog with what was typed
        const next = await deeds.about(batch.version, {
          name,
          note,
          checkDate: checkDate ?? "",
          ledgerDate: ledgerDate ?? "",
        });
        await edit(() => Promise.resolve(next), "Changed.");
      }}
    >
      <div className="flex flex-col gap-3">
        <Field label="Name">
          <input value={name} maxLength={80} onChange={(event) => setName(event.target.value)} />
        </Field>
        <Field label="Note">
          <textarea rows={2} value={note} maxLength={500} onChange={(event) => setNote(event.target.value)} />
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
