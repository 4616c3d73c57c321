import { DayEntry, Entry, Form } from "../parts/Form";
import { Dialog } from "../parts/Dialog";
import { useKeptForm } from "../parts/useKeptForm";
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
  return (
    <Dialog open onClose={onClose} title={`Name, note and days of “${batch.name}”`}>
      <About batch={batch} edits={edits} deeds={deeds} onClose={onClose} />
    </Dialog>
  );
}

function About({
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
  const form = useKeptForm(
    `about ${batch.id}`,
    { name: batch.name, note: batch.note, checkDate: batch.checkDate, ledgerDate: batch.ledgerDate },
    (typed) => edits.must((v) => deeds.about(v, typed), "Changed."),
    { done: onClose },
  );
  return (
    <Form form={form} label="About the batch" deed="Keep the change" onClose={onClose} className="gap-3">
      <Entry name="name" label="Name" />
      <Entry name="note" label="Note" rows={2} />
      <div className="grid grid-cols-2 gap-3">
        <DayEntry name="checkDate" label="Check date" />
        <DayEntry name="ledgerDate" label="Ledger date" />
      </div>
      <p className="text-faint">
        Another check date reckons discounts anew and, like any change of amounts, voids an approval.
      </p>
    </Form>
  );
}
