import { useState } from "react";
import { api, call } from "../api/client";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { Dialog } from "../parts/Dialog";
import { Entry, Form } from "../parts/Form";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";
import { useAgain, type Account } from "./BankAccountPage";

/** The days, besides weekends, on which the bank does not work. */
export function Holidays({ account }: { account: Account }) {
  const again = useAgain();
  const [adding, setAdding] = useState(false);
  const path = { params: { path: { id: account.id } } };
  const removing = useDeed(
    (day: string) => call(api.POST("/api/bank-accounts/{id}/holidays/remove", { ...path, body: { day } })),
    { line: `holidays ${account.id}`, done: again, failed: again },
  );
  return (
    <section aria-label="Banking days">
      <h2 className="mb-1 text-base font-bold">Banking days</h2>
      <p>Monday to Friday{account.holidays.length > 0 ? ", without:" : "; no holiday is kept."}</p>
      <ul className="max-h-56 overflow-auto">
        {account.holidays.map((one) => (
          <li key={one.day} className="flex items-baseline gap-3">
            <span className="w-32 shrink-0">{longDate(one.day)}</span>
            <span className="min-w-0 flex-1 truncate">{one.name}</span>
            {account.maySet && (
              <Button
                look="bare"
                className="min-h-6 py-0"
                aria-label={`Remove ${longDate(one.day)}`}
                onClick={() => void removing.run(one.day)}
              >
                remove
              </Button>
            )}
          </li>
        ))}
      </ul>
      {account.maySet && (
        <Button className="mt-2" onClick={() => setAdding(true)}>
          Add holidays…
        </Button>
      )}
      <Dialog open={adding} onClose={() => setAdding(false)} title={`Holidays of ${account.bankName}`}>
        <Add account={account} onClose={() => setAdding(false)} />
      </Dialog>
    </section>
  );
}

function Add({ account, onClose }: { account: Account; onClose: () => void }) {
  const again = useAgain();
  const form = useKeptForm(
    `holidays ${account.id}`,
    { text: "" },
    (typed) =>
      call(
        api.POST("/api/bank-accounts/{id}/holidays", {
          params: { path: { id: account.id } },
          body: typed,
        }),
      ),
    {
      done: async () => {
        await again();
        onClose();
      },
    },
  );
  return (
    <Form form={form} label="Holidays" deed="Add these days" onClose={onClose}>
      <Entry
        name="text"
        rows={8}
        autoFocus
        look="font-mono text-note"
        placeholder="2026-12-25 Christmas Day"
        label="A day in each line, then its name; a list of the bank can be pasted as it is"
      />
    </Form>
  );
}
