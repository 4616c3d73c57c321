import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { DeedDialog } from "../parts/DeedDialog";
import { BankFields, NO_BANK } from "./BankFields";
import { ChangeFacts } from "./ChangeFacts";
import { Field } from "../parts/Field";

type Vendor = Schemas["VendorView"];
type Address = Schemas["AddressView"];

/** What waits for a second person, and everything that was ever changed about a vendor. */
export function VendorChangesPart({ vendor }: { vendor: Vendor }) {
  const changes = useQuery({
    queryKey: ["vendor-changes", vendor.id],
    queryFn: () => call(api.GET("/api/vendors/{id}/changes", { params: { path: { id: vendor.id } } })),
  });
  const waiting = changes.data?.filter((one) => one.state === "PROPOSED") ?? [];
  const decided = changes.data?.filter((one) => one.state !== "PROPOSED") ?? [];
  return (
    <>
      {waiting.length > 0 && (
        <section aria-label="Waits for a second person" className="callout">
          <h2 className="text-brass mb-1 text-note font-semibold">Waits for a second person</h2>
          {waiting.map((change) => (
            <ChangeFacts key={change.id} change={change} here />
          ))}
        </section>
      )}
      <section aria-label="Changes by two people">
        <h2 className="text-faint mb-1 text-note font-semibold">Changes by two people, newest first</h2>
        {decided.length === 0 && <p className="text-faint">None yet.</p>}
        <div className="flex flex-col gap-4">
          {decided.map((change) => (
            <ChangeFacts key={change.id} change={change} here />
          ))}
        </div>
      </section>
    </>
  );
}

/** Proposes another address or other bank details; somebody else confirms. */
export function ProposeChange({
  vendor,
  address,
  open,
  onClose,
}: {
  vendor: Vendor;
  /** The address to change; undefined for a further one. */
  address: Address | undefined;
  open: boolean;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const [payee, setPayee] = useState(address?.payee ?? vendor.name);
  const [lines, setLines] = useState(address?.lines.join("\n") ?? "");
  const [postalCode, setPostalCode] = useState(address?.postalCode ?? "");
  const [bank, setBank] = useState<"KEEP" | "NONE" | "NEW">(address ? "KEEP" : "NONE");
  const [typed, setTyped] = useState(NO_BANK);
  return (
    <DeedDialog
      open={open}
      onClose={onClose}
      title={address ? `Change where ${vendor.name} is paid` : `A further address of ${vendor.name}`}
      deed="Propose the change"
      reason="Where this comes from, such as a letter or a call you made yourself"
      run={async (why) => {
        await call(
          api.POST("/api/vendors/{id}/changes", {
            params: { path: { id: vendor.id } },
            body: {
              remitTo: address?.id,
              payee,
              lines: lines.split("\n"),
              postalCode,
              bank,
              routing: typed.routing,
              bankAccount: typed.account,
              why,
            },
          }),
        );
        await queries.invalidateQueries();
        toast("Proposed. Nothing changes until a controller confirms it.");
      }}
    >
      <div className="flex flex-col gap-3">
        <Field label="Payee">
          <input value={payee} maxLength={120} onChange={(event) => setPayee(event.target.value)} />
        </Field>
        <Field label="Address, one to five lines">
          <textarea rows={3} value={lines} onChange={(event) => setLines(event.target.value)} />
        </Field>
        <Field label="Postal code" className="self-start">
          <input
            className="w-40"
            maxLength={20}
            value={postalCode}
            onChange={(event) => setPostalCode(event.target.value)}
          />
        </Field>
        <fieldset className="flex flex-col gap-1">
          <legend className="text-faint">Bank details</legend>
          {(
            [
              ["KEEP", `as they are (${address?.bank || "none"})`],
              ["NONE", "none"],
              ["NEW", "new ones"],
            ] as const
          )
            .filter(([value]) => address || value !== "KEEP")
            .map(([value, words]) => (
              <label key={value} className="flex items-center gap-2">
                <input
                  type="radio"
                  name="bank"
                  className="min-h-0"
                  checked={bank === value}
                  onChange={() => setBank(value)}
                />
                {words}
              </label>
            ))}
          {bank === "NEW" && (
            <div className="pl-6">
              <BankFields value={typed} onChange={setTyped} />
            </div>
          )}
        </fieldset>
      </div>
    </DeedDialog>
  );
}
