import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { dayMonth } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";

/** Open invoices of any vendor, due or not, to add to a batch. */
export function AddInvoices({
  batch,
  open,
  onClose,
  add,
}: {
  batch: Schemas["BatchView"];
  open: boolean;
  onClose: () => void;
  add: (invoices: number[]) => Promise<void>;
}) {
  const [text, setText] = useState("");
  const [chosen, setChosen] = useState<number[]>([]);
  const found = useQuery({
    queryKey: ["addable", batch.id, batch.version, text],
    enabled: open,
    queryFn: () =>
      call(api.GET("/api/batches/{id}/addable", { params: { path: { id: batch.id }, query: { text } } })),
  });
  return (
    <DeedDialog
      open={open}
      wide
      onClose={() => {
        setChosen([]);
        setText("");
        onClose();
      }}
      title="Add open invoices, due or not"
      deed={
        chosen.length === 0 ? "Add" : `Add ${chosen.length} ${chosen.length === 1 ? "invoice" : "invoices"}`
      }
      run={async () => {
        await add(chosen);
        setChosen([]);
      }}
    >
      <label className="mb-2 flex flex-col gap-1">
        <span className="text-faint">Vendor or their reference</span>
        <input value={text} autoFocus onChange={(event) => setText(event.target.value)} />
      </label>
      <ul className="border-hair max-h-72 overflow-auto border-t">
        {found.data?.map((hit) => (
          <li key={hit.invoice} className="border-hair border-b">
            <label className={`flex min-h-8 items-center gap-3 px-1 ${hit.inBatch ? "text-faint" : ""}`}>
              <input
                type="checkbox"
                className="min-h-0"
                disabled={Boolean(hit.inBatch)}
                checked={chosen.includes(hit.invoice)}
                onChange={(event) =>
                  setChosen((before) =>
                    event.target.checked
                      ? [...before, hit.invoice]
                      : before.filter((id) => id !== hit.invoice),
                  )
                }
              />
              <span className="w-60 truncate">{hit.vendorName}</span>
              <span className="w-28 font-mono text-note">{hit.reference}</span>
              <span className="text-note">
                {hit.inBatch ? `in “${hit.inBatch}”` : `due ${dayMonth(hit.dueDate)}`}
              </span>
              <span className="ml-auto">{hit.open.text}</span>
            </label>
          </li>
        ))}
        {found.data?.length === 0 && <li className="text-faint p-2">No open invoice holds “{text}”.</li>}
      </ul>
    </DeedDialog>
  );
}
