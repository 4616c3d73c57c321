import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { toast } from "sonner";
import { api, call } from "../api/client";
import { DeedDialog } from "../parts/DeedDialog";
import type { Show, Vendor } from "./VendorPage";

/** Credits laid against invoices at any time, without a payment. */
export function OffsetCredits({
  vendor,
  open,
  chosen,
  onClose,
}: {
  vendor: Vendor;
  open: boolean;
  chosen: Set<string>;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const [off, setOff] = useState<Set<number>>(new Set());
  const [taken, setTaken] = useState<number>();
  const entries = (show: Show) => ({
    queryKey: ["vendor-account", vendor.id, show],
    enabled: open,
    queryFn: () =>
      call(api.GET("/api/vendors/{id}/account", { params: { path: { id: vendor.id }, query: { show } } })),
  });
  const invoices = useQuery(entries("OPEN"));
  const credits = useQuery(entries("CREDITS"));
  const free = [...(invoices.data ?? []), ...(credits.data ?? [])].filter((row) => row.selectable);
  const wanted = free.filter((row) =>
    row.kind === "PREPAYMENT"
      ? taken === row.entry
      : !off.has(row.entry) &&
        (chosen.size === 0 || chosen.has(row.key) || (row.kind === "CREDIT" && taken === undefined)),
  );
  const of = (invoices: boolean) =>
    wanted.filter((row) => (row.kind === "INVOICE") === invoices).map((row) => row.entry);
  const owed = of(true);
  const used = of(false);
  const ahead = wanted.some((row) => row.kind === "PREPAYMENT");
  return (
    <DeedDialog
      open={open}
      onClose={() => {
        setOff(new Set());
        setTaken(undefined);
        onClose();
      }}
      title={`Offset credits of ${vendor.name}`}
      deed={`Offset ${owed.length} ${owed.length === 1 ? "invoice" : "invoices"} and ${used.length} ${ahead ? "prepayment" : used.length === 1 ? "credit" : "credits"}`}
      run={async () => {
        const made = await call(
          api.POST("/api/offsets", {
            body: { vendor: vendor.id, invoices: owed, credits: used },
          }),
        );
        await queries.invalidateQueries();
        toast(`Offset ${made.reference}: ${made.amount.text} settled without a payment.`);
      }}
    >
      <p className="mb-2">
        Oldest credits go against the invoices due first, as far as the smaller side goes. No discount is
        taken and no check is written; it can be taken back while its period is open. A prepayment is matched
        by itself.
      </p>
      <ul className="border-hair max-h-72 overflow-auto border-t">
        {free.map((row) => (
          <li key={row.key} className="border-hair border-b">
            <label className="flex min-h-8 items-center gap-3 px-1">
              <input
                type="checkbox"
                className="min-h-0"
                checked={wanted.includes(row)}
                onChange={(event) => {
                  if (row.kind === "PREPAYMENT") {
                    setTaken(event.target.checked ? row.entry : undefined);
                    return;
                  }
                  const next = new Set(off);
                  if (event.target.checked) next.delete(row.entry);
                  else next.add(row.entry);
                  setOff(next);
                }}
              />
              <span className="w-24">{row.words}</span>
              <span className="font-mono text-note">{row.reference}</span>
              <span className="ml-auto">
                {row.open} {row.currency}
              </span>
            </label>
          </li>
        ))}
        {free.length === 0 && <li className="text-faint p-2">Nothing of this vendor is open and free.</li>}
      </ul>
    </DeedDialog>
  );
}
