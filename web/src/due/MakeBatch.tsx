import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { toast } from "sonner";
import { api, call } from "../api/client";
import { shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import type { Criteria } from "./criteria";

/** Name, note and ledger date of a new batch. */
export function MakeBatch({
  open,
  onClose,
  criteria,
  count,
  toPay,
  currency,
}: {
  open: boolean;
  onClose: () => void;
  criteria: Criteria;
  count: number;
  toPay: string;
  currency: string;
}) {
  const [name, setName] = useState(`Run of ${shortDate(criteria.checkDate)}`);
  const [note, setNote] = useState("");
  const [ledgerDate, setLedgerDate] = useState(criteria.checkDate);
  const navigate = useNavigate();
  const queries = useQueryClient();
  return (
    <DeedDialog
      open={open}
      onClose={onClose}
      title={`${count} ${count === 1 ? "invoice" : "invoices"}, ${toPay} ${currency}, checks dated ${shortDate(criteria.checkDate)}`}
      deed={`Make the batch of ${count}`}
      run={async () => {
        const made = await call(
          api.POST("/api/batches", {
            body: { name, note, ledgerDate, expectedCount: count, question: criteria },
          }),
        );
        await queries.invalidateQueries();
        toast(`Batch “${name}” made. Its invoices are reserved for it.`);
        navigate(`/batches/${made.id}`);
      }}
    >
      <div className="flex flex-col gap-3">
        <label className="flex flex-col gap-1">
          <span className="text-faint">Name</span>
          <input
            value={name}
            maxLength={80}
            required
            autoFocus
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <label className="flex flex-col gap-1">
          <span className="text-faint">Ledger date</span>
          <input
            type="date"
            value={ledgerDate}
            required
            onChange={(event) => setLedgerDate(event.target.value)}
          />
        </label>
        <label className="flex flex-col gap-1">
          <span className="text-faint">Note for the approver</span>
          <textarea value={note} maxLength={500} rows={2} onChange={(event) => setNote(event.target.value)} />
        </label>
      </div>
    </DeedDialog>
  );
}
