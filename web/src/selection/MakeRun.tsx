import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Field } from "../parts/Field";
import { Loaded } from "../parts/Loaded";
import { useKept } from "../parts/useKept";
import type { Question } from "./criteria";
import type { DueView } from "./useDueList";

type Part = Schemas["RunPartView"];

const keyOf = (part: Part) => `${part.account} ${part.way}`;

/** A batch for each way the run is paid, made together or not at all. */
export function MakeRun({
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
  const [typed, type, forget] = useKept(`run of ${view.checkDate}`, {
    name: `Run of ${shortDate(view.checkDate)}`,
    note: "",
  });
  const [without, setWithout] = useState<Set<string>>(new Set());
  const navigate = useNavigate();
  const queries = useQueryClient();
  const parts = useQuery({
    queryKey: ["whole-run", question],
    enabled: open,
    queryFn: () => call(api.GET("/api/batches/run", { params: { query: question } })),
  });
  const chosen = (parts.data ?? []).filter((part) => !without.has(keyOf(part)));
  const turn = (key: string) => {
    const next = new Set(without);
    if (!next.delete(key)) next.add(key);
    setWithout(next);
  };
  return (
    <DeedDialog
      open={open}
      onClose={onClose}
      wide
      title="This run in every way it is paid"
      deed={chosen.length === 1 ? "Make the batch" : `Make ${chosen.length} batches`}
      run={async () => {
        try {
          const made = await call(
            api.POST("/api/batches/run", {
              body: {
                ...typed,
                question,
                criteria,
                parts: chosen.map((part) => ({
                  account: part.account,
                  way: part.way,
                  expectedCount: part.invoices,
                  expectedToPay: part.toPay.text,
                })),
              },
            }),
          );
          forget();
          toast(
            made.batches.length === 1
              ? "The batch is made. Its invoices are reserved for it."
              : `${made.batches.length} batches made. Their invoices are reserved for them.`,
          );
          navigate(made.batches.length === 1 ? `/batches/${made.batches[0]}` : "/batches");
        } finally {
          // also after a refusal: what changed meanwhile is what has to be seen
          await queries.invalidateQueries();
        }
      }}
    >
      <div className="flex flex-col gap-3">
        <Loaded query={parts}>
          {(found) =>
            found.length === 0 ? (
              <p>Nothing is taken by any way. Take some invoices first.</p>
            ) : (
              <Ways parts={found} without={without} onTurn={turn} />
            )
          }
        </Loaded>
        <Field label="Name of the run; each batch adds its way">
          <input
            value={typed.name}
            maxLength={50}
            required
            onChange={(event) => type({ ...typed, name: event.target.value })}
          />
        </Field>
        <Field label="Note for the approver">
          <textarea
            value={typed.note}
            maxLength={500}
            rows={2}
            onChange={(event) => type({ ...typed, note: event.target.value })}
          />
        </Field>
      </div>
    </DeedDialog>
  );
}

function Ways({
  parts,
  without,
  onTurn,
}: {
  parts: Part[];
  without: Set<string>;
  onTurn: (key: string) => void;
}) {
  return (
    <table className="w-full">
      <caption className="text-faint mb-1 text-left text-note">
        The same criteria, asked of every way. A way that is left out can be made later.
      </caption>
      <thead className="text-faint text-note">
        <tr>
          <th className="text-left font-semibold">By</th>
          <th className="pl-3 text-left font-semibold">From</th>
          <th className="pl-3 text-left font-semibold">On</th>
          <th className="pl-3 text-right font-semibold">Invoices</th>
          <th className="pl-3 text-right font-semibold">Payments</th>
          <th className="pl-3 text-right font-semibold">To pay</th>
        </tr>
      </thead>
      <tbody>
        {parts.map((part) => (
          <tr key={keyOf(part)} className="border-hair border-t">
            <td>
              <label className="flex min-h-8 items-center gap-2">
                <input
                  type="checkbox"
                  checked={!without.has(keyOf(part))}
                  onChange={() => onTurn(keyOf(part))}
                />
                {part.by}
              </label>
            </td>
            <td className="pl-3">{part.accountName}</td>
            <td className="pl-3">{shortDate(part.checkDate)}</td>
            <td className="pl-3 text-right font-mono">{part.invoices}</td>
            <td className="pl-3 text-right font-mono">{part.payments}</td>
            <td className="pl-3 text-right font-mono">
              {part.toPay.text} {part.toPay.currency}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
