import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, call } from "../api/client";
import { Station } from "../frame/Station";
import { ChoiceEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import { InOrder } from "./InOrder";
import { KindOfAccount } from "./KindOfAccount";
import { asWanted, useVendorChoices, VendorFields } from "./VendorFields";

const NOTHING = {
  number: "",
  name: "",
  terms: "net 30",
  method: "CHECK",
  alsoBy: "",
  group: "",
  priority: "5",
  email: "",
  advice: "PAPER",
  checks: "MAIL",
  dates: "",
  reportable: "NO",
  taxNumber: "",
  currency: "",
  oneTime: "no",
  payee: "",
  address: "",
  postalCode: "",
  routing: "",
  account: "",
  savings: "no",
  bic: "",
};

/** A new vendor: typed from top to bottom, its address in force once a controller confirms it. */
export function NewVendor() {
  return (
    <Station
      title="New vendor"
      sentence={
        <>A new vendor. Its address and bank details wait for a controller; the rest holds at once.</>
      }
      answer={<span>Tab goes on, Enter enters it.</span>}
      list={
        <div className="min-h-0 flex-1 overflow-auto px-5 py-4" tabIndex={-1} data-list>
          <div className="max-w-3xl">
            <NewVendorForm />
          </div>
        </div>
      }
    />
  );
}

function NewVendorForm() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const choices = useVendorChoices();
  const banks = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
  });
  const currencies = [...new Set((banks.data ?? []).map((bank) => bank.currency))];
  const form = useKeptForm(
    "new vendor",
    NOTHING,
    (typed) =>
      call(
        api.POST("/api/vendors", {
          body: {
            facts: asWanted(typed, typed.taxNumber.trim() === "" ? undefined : typed.taxNumber),
            number: typed.number,
            currency: typed.currency || (currencies[0] ?? ""),
            oneTime: typed.oneTime === "yes",
            payee: typed.payee,
            address: typed.address.split("\n"),
            postalCode: typed.postalCode,
            routing: typed.routing,
            account: typed.account,
            savings: typed.savings === "yes",
            bic: typed.bic,
          },
        }),
      ),
    {
      secret: ["account", "taxNumber"],
      done: async (id) => {
        await queries.invalidateQueries();
        await navigate(`/vendors/${id}`);
      },
      said: (_, typed) => `${typed.name} is entered. A controller confirms its address.`,
    },
  );
  return (
    <Form form={form} label="New vendor" deed="Enter the vendor" leave="Begin again" className="gap-4">
      <VendorFields autoFocus />
      <div className="grid grid-cols-2 gap-3 max-[640px]:grid-cols-1">
        <div className="flex flex-col gap-2">
          <Entry
            name="address"
            rows={4}
            label="Address, line by line, as it stands in the window of the envelope"
          />
          <InOrder lines="address" />
        </div>
        <div className="flex flex-col gap-3">
          <Entry name="payee" label="Payee, where it is not the name above" />
          <Entry name="postalCode" label="Postal code, by which batches can be sorted" look="w-32" />
        </div>
        <Entry name="routing" label="Routing number, empty for an IBAN" look="font-mono" />
        <Entry
          name="account"
          label="Account number or IBAN; empty where checks are mailed"
          look="font-mono"
        />
        <KindOfAccount />
        <Entry
          name="number"
          label={`Number; empty: ${choices.data?.nextNumber ?? "the next one"}`}
          look="w-40 font-mono"
        />
        <div className="flex gap-3">
          <ChoiceEntry
            name="currency"
            label="Currency"
            choices={currencies.map((code) => ({ value: code, text: code }))}
          />
          <ChoiceEntry
            name="oneTime"
            label="Paid once and never again"
            choices={[
              { value: "no", text: "no" },
              { value: "yes", text: "yes: its payments are marked" },
            ]}
          />
        </div>
      </div>
    </Form>
  );
}
