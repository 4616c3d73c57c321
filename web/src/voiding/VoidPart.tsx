import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { DayField } from "../parts/DayField";
import { DeedDialog } from "../parts/DeedDialog";

/** What voiding a check on a day would write, and the deed. */
export function VoidPart({
  number,
  date,
  setDate,
}: {
  number: Schemas["NumberView"];
  date: string;
  setDate: (date: string) => void;
}) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  const preview = useQuery({
    queryKey: ["void-preview", number.id, date],
    queryFn: () =>
      call(
        api.GET("/api/checks/{id}/void-preview", { params: { path: { id: number.id }, query: { date } } }),
      ),
    placeholderData: keepPreviousData,
  });
  return (
    <section className="border-hair border-t pt-3">
      <h3 className="mb-2 font-semibold">If {number.number} is voided</h3>
      <div className="mb-2">
        <DayField label="On" value={date} onDay={(day) => day && setDate(day)} />
      </div>
      {preview.error ? (
        <p className="text-rust">{preview.error.message}</p>
      ) : (
        preview.data && <Entry preview={preview.data} />
      )}
      <p className="mt-2">
        {number.payee && "Its invoices come back open; "}the number stays. {preview.data?.bank}
      </p>
      <Button look="grave" className="mt-2" disabled={Boolean(preview.error)} onClick={() => setAsking(true)}>
        Void check…
      </Button>
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`Void check ${number.number} to ${number.payee}, ${number.amount?.text ?? ""}`}
        deed={`Void check ${number.number}`}
        grave
        reason="Why it is voided"
        run={async (reason) => {
          await call(
            api.POST("/api/checks/{id}/void", {
              params: { path: { id: number.id } },
              body: { date, reason },
            }),
          );
          await queries.invalidateQueries();
          toast(`Check ${number.number} is voided; its invoices are open again.`);
        }}
      >
        {preview.data && <Entry preview={preview.data} />}
        <p className="mt-2">{preview.data?.bank}</p>
      </DeedDialog>
    </section>
  );
}

/** An entry in debit and credit columns. */
function Entry({ preview }: { preview: Schemas["VoidView"] }) {
  return (
    <table className="border-hair bg-sheet w-full border">
      <thead className="text-faint text-note">
        <tr>
          <th className="px-2 py-1 text-left font-semibold">{preview.period}</th>
          <th className="px-2 text-right font-semibold">Debit</th>
          <th className="px-2 text-right font-semibold">Credit</th>
        </tr>
      </thead>
      <tbody>
        {preview.lines.map((line, i) => (
          <tr key={i} className="border-hair border-t">
            <td className="px-2 py-1">{line.account}</td>
            <td className="px-2 text-right">{line.debit}</td>
            <td className="px-2 text-right">{line.credit}</td>
          </tr>
        ))}
        <tr className="border-hair text-faint border-t text-note">
          <td colSpan={3} className="px-2 py-1">
            Locked months do not move.
          </td>
        </tr>
      </tbody>
    </table>
  );
}
