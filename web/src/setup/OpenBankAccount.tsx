import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api, call } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { ChoiceEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";

const NOTHING = { name: "", bankName: "", currency: "USD", routing: "", accountNumber: "", cash: "" };

/** Opens a bank account; its series come next, on its own page. */
export function OpenBankAccount({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Open a bank account">
      <OpenForm onClose={onClose} />
    </Dialog>
  );
}

function OpenForm({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const ledger = useQuery({
    queryKey: ["ledger-accounts"],
    queryFn: () => call(api.GET("/api/ledger-accounts")),
  });
  const cash = (ledger.data ?? []).filter((one) => one.kind === "CASH" && one.open);
  const form = useKeptForm(
    "new bank account",
    NOTHING,
    (typed) =>
      call(
        api.POST("/api/bank-accounts", { body: { ...typed, cash: Number(typed.cash || cash[0]?.id || 0) } }),
      ),
    {
      secret: ["accountNumber"],
      done: async (id) => {
        await queries.invalidateQueries();
        onClose();
        await navigate(`/bank-accounts/${id}`);
      },
    },
  );
  return (
    <Form form={form} label="Bank account" deed="Open the account" onClose={onClose} className="gap-3">
      <div className="grid grid-cols-2 gap-3">
        <Entry name="name" label="What everybody calls it" placeholder="Operations" autoFocus />
        <Entry name="bankName" label="The bank, as it stands on the check" />
        <Entry name="routing" label="Routing number" look="font-mono" inputMode="numeric" />
        <Entry name="accountNumber" label="Account number; kept sealed" look="font-mono" />
        <Entry name="currency" label="Currency; it never changes" look="w-24 font-mono" />
        <ChoiceEntry
          name="cash"
          label="Its cash in the ledger"
          choices={cash.map((one) => ({ value: String(one.id), text: `${one.code} ${one.name}` }))}
        />
      </div>
      {ledger.data && cash.length === 0 && (
        <p className="text-brass">
          The ledger has no open account of the kind cash.{" "}
          <Link className="go" to="/ledger?view=accounts">
            Add one first
          </Link>
          ; what you typed here stays.
        </p>
      )}
    </Form>
  );
}
