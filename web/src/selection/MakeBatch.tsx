import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { toast } from "sonner";
import { api, call } from "../api/client";
import { longDate, shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import type { Question } from "./criteria";
import type { DueView } from "./useDueList";
import { Field } from "../parts/Field";
import { useKept } from "../parts/useKept";

/** Name and note of a new batch. */
export function MakeBatch({
  open,
  onClose,
  question,
  view,
  criteria,
}: {
  open: boolean;
  onClose: () => void;
  question: Question;
  view: DueView;
  /** The kept criteria it was asked by. */
  criteria: number | undefined;
}) {
  const [{ name, note }, type, forget] = useKept(`batch of ${question.account} ${view.checkDate}`, {
    name: `Run of ${shortDate(view.checkDate)}`,
    note: "",
  });
  const navigate = useNavigate();
  const queries = useQueryClient();
  return (
    <DeedDialog
      open={open}
      onClose={onClose}
      title={`${view.count} ${view.count === 1 ? "invoice" : "invoices"}, ${view.toPay} ${view.currency}, paid on ${shortDate(view.checkDate)}`}
      deed={`Make the batch of ${view.count}`}
      run={async () => {
        const made = await call(
          api.POST("/api/batches", {
            body: {
              name,
              note,
              expectedCount: view.count,
              expectedToPay: view.toPay,
              question,
              criteria,
            },
          }),
        );
        forget();
        await queries.invalidateQueries();
        toast(`Batch “${name}” made. Its invoices are reserved for it.`);
        navigate(`/batches/${made.id}`);
      }}
    >
      <div className="flex flex-col gap-3">
        <Field label="Name">
          <input
            value={name}
            maxLength={80}
            required
            autoFocus
            onChange={(event) => type({ name: event.target.value, note })}
          />
        </Field>
        <p>
          In the ledger on <b>{longDate(view.ledgerDate)}</b>; another day is chosen in the sentence above the
          list.
        </p>
        <Field label="Note for the approver">
          <textarea
            value={note}
            maxLength={500}
            rows={2}
            onChange={(event) => type({ name, note: event.target.value })}
          />
        </Field>
      </div>
    </DeedDialog>
  );
}
