import { useQueryClient } from "@tanstack/react-query";
import { api, call } from "../api/client";
import { DayEntry, Entry, Form } from "../parts/Form";
import { Dialog } from "../parts/Dialog";
import { useKeptForm } from "../parts/useKeptForm";

interface Of {
  account: number;
  onClose: () => void;
}

/** Brings a movement in, or sets the floor. */
export function CashDeeds({
  doing,
  today,
  ...of
}: Of & { doing: "floor" | "movement" | undefined; today: string }) {
  return (
    <>
      <Dialog
        open={doing === "floor"}
        onClose={of.onClose}
        title="The cash the company keeps on this account"
      >
        <Floor {...of} />
      </Dialog>
      <Dialog
        open={doing === "movement"}
        onClose={of.onClose}
        title="A cash movement the ledger does not know yet"
      >
        <Movement {...of} today={today} />
      </Dialog>
    </>
  );
}

function useDone(onClose: () => void) {
  const queries = useQueryClient();
  return async () => {
    await queries.invalidateQueries();
    onClose();
  };
}

function Floor({ account, onClose }: Of) {
  const form = useKeptForm(
    `floor ${account}`,
    { floor: "" },
    (body) => call(api.POST("/api/bank-accounts/{id}/floor", { params: { path: { id: account } }, body })),
    { done: useDone(onClose) },
  );
  return (
    <Form form={form} label="Floor" deed="Keep this floor" onClose={onClose}>
      <Entry name="floor" label="Floor" inputMode="decimal" look="text-right" autoFocus />
    </Form>
  );
}

function Movement({ account, onClose, today }: Of & { today: string }) {
  const form = useKeptForm(
    `movement ${account}`,
    { date: today, text: "", amount: "" },
    (body) =>
      call(api.POST("/api/bank-accounts/{id}/movements", { params: { path: { id: account } }, body })),
    { done: useDone(onClose) },
  );
  return (
    <Form form={form} label="Movement" deed="Bring it in" onClose={onClose} className="gap-3">
      <DayEntry name="date" label="Day at the bank" />
      <Entry name="text" label="What it is" autoFocus />
      <Entry
        name="amount"
        label="Amount; a minus for what left the account"
        inputMode="decimal"
        look="text-right"
      />
    </Form>
  );
}
