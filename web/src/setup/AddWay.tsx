import { api, call, type Schemas } from "../api/client";
import { ChoiceEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import { useAgain, type Account } from "./BankAccountPage";

type Method = Schemas["WayWanted"]["method"];

/** A way to pay that takes no check numbers. */
export function AddWay({ account, onClose }: { account: Account; onClose: () => void }) {
  const again = useAgain();
  const form = useKeptForm(
    `way ${account.id}`,
    { wayName: "", method: account.otherWays[0]?.method ?? "" },
    (typed) =>
      call(
        api.POST("/api/bank-accounts/{id}/ways", {
          params: { path: { id: account.id } },
          body: { wayName: typed.wayName, method: typed.method as Method },
        }),
      ),
    {
      done: async () => {
        await again();
        onClose();
      },
      said: () => "Batches can choose it for payees that it reaches.",
    },
  );
  return (
    <Form form={form} label="Way to pay" deed="Add this way" onClose={onClose}>
      <ChoiceEntry
        name="method"
        label="What carries the money"
        choices={account.otherWays.map((one) => ({ value: one.method, text: one.words }))}
      />
      <Entry name="wayName" label="What this way to pay is called" autoFocus />
      <p className="text-faint text-note">It takes no check numbers and needs bank details of the payee.</p>
    </Form>
  );
}
