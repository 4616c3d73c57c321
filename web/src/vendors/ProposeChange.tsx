import { useQueryClient } from "@tanstack/react-query";
import { useWatch } from "react-hook-form";
import { api, call, type Schemas } from "../api/client";
import { ChoiceEntry, Entry, Form } from "../parts/Form";
import { Dialog } from "../parts/Dialog";
import { useKeptForm } from "../parts/useKeptForm";
import { InOrder } from "./InOrder";
import { KindOfAccount } from "./KindOfAccount";

type Vendor = Schemas["VendorView"];
type Address = Schemas["AddressView"];

/** Proposes another address or other bank details; somebody else confirms. */
export function ProposeChange({
  vendor,
  address,
  onClose,
}: {
  vendor: Vendor;
  /** The address to change; undefined for a further one. */
  address: Address | undefined;
  onClose: () => void;
}) {
  return (
    <Dialog
      open
      onClose={onClose}
      title={address ? `Change where ${vendor.name} is paid` : `A further address of ${vendor.name}`}
    >
      <Proposal vendor={vendor} address={address} onClose={onClose} />
    </Dialog>
  );
}

function Proposal({
  vendor,
  address,
  onClose,
}: {
  vendor: Vendor;
  address: Address | undefined;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const form = useKeptForm(
    `change ${vendor.id} ${address?.id ?? "further"}`,
    {
      payee: address?.payee ?? vendor.name,
      lines: address?.lines.join("\n") ?? "",
      postalCode: address?.postalCode ?? "",
      bank: address ? "KEEP" : "NONE",
      routing: "",
      bankAccount: "",
      savings: "no",
      bic: "",
      why: "",
    },
    (typed) =>
      call(
        api.POST("/api/vendors/{id}/changes", {
          params: { path: { id: vendor.id } },
          body: {
            ...typed,
            savings: typed.savings === "yes",
            remitTo: address?.id,
            lines: typed.lines.split("\n"),
            bank: typed.bank as "KEEP" | "NONE" | "NEW",
          },
        }),
      ),
    {
      secret: ["bankAccount"],
      done: async () => {
        await queries.invalidateQueries();
        onClose();
      },
      said: () => "Proposed. Nothing changes until a controller confirms it.",
    },
  );
  const bank = useWatch({ control: form.control, name: "bank" });
  return (
    <Form form={form} label="Change" deed="Propose the change" onClose={onClose} className="gap-3">
      <Entry name="payee" label="Payee" />
      <Entry name="lines" label="Address, one to five lines" rows={3} />
      <InOrder lines="lines" />
      <Entry name="postalCode" label="Postal code" look="w-40" />
      <ChoiceEntry
        name="bank"
        label="Bank details"
        choices={[
          ...(address ? [{ value: "KEEP", text: `as they are (${address.bank || "none"})` }] : []),
          { value: "NONE", text: "none" },
          { value: "NEW", text: "new ones" },
        ]}
      />
      {bank === "NEW" && (
        <div className="flex flex-wrap gap-3 pl-6">
          <Entry name="routing" small label="Routing number, empty for an IBAN" look="w-40 font-mono" />
          <Entry name="bankAccount" small label="Account number or IBAN" look="w-64 font-mono" />
          <KindOfAccount small />
        </div>
      )}
      <Entry
        name="why"
        label="Where this comes from, such as a letter or a call you made yourself"
        rows={2}
      />
    </Form>
  );
}
