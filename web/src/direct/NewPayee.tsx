import { useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import { KindOfAccount } from "../vendors/KindOfAccount";

/** Enters a payee who is paid once, with no more than the way asks for. */
export function NewPayee({
  name,
  way,
  onEntered,
}: {
  name: string;
  way: Schemas["DirectWay"];
  onEntered: (number: string) => void;
}) {
  const queries = useQueryClient();
  const form = useKeptForm(
    `paid once ${name}`,
    { name: name.trim(), address: "", postalCode: "", routing: "", account: "", savings: "no", bic: "" },
    (typed) =>
      call(
        api.POST("/api/direct/payees", {
          body: {
            name: typed.name,
            address: typed.address.split("\n"),
            postalCode: typed.postalCode,
            bankAccount: way.account,
            way: way.way,
            routing: typed.routing,
            account: typed.account,
            savings: typed.savings === "yes",
            bic: typed.bic,
          },
        }),
      ),
    {
      secret: ["account"],
      done: async (entered) => {
        await queries.invalidateQueries();
        onEntered(entered.number);
      },
      said: (entered, typed) =>
        `${typed.name} is entered as ${entered.number}${entered.waits ? ". A controller confirms it before the batch can be sent" : ""}.`,
    },
  );
  return (
    <section aria-label="A payee who is paid once" className="border-hair flex flex-col gap-3 border p-3">
      <h2 className="text-base font-bold">A payee who is paid once</h2>
      <Form form={form} label="A payee who is paid once" deed="Enter the payee" className="gap-3">
        <Entry name="name" label="Name, as the payment is made out to" small />
        <Entry name="address" label="Address, line by line" rows={3} small />
        <Entry name="postalCode" label="Postal code" small look="w-28" />
        {!way.byCheck && (
          <>
            <Entry
              name="routing"
              label={way.byIban ? "Routing number, empty for an IBAN" : "Routing number"}
              small
              look="font-mono"
            />
            <Entry
              name="account"
              label={way.byIban ? "Account number or IBAN" : "Account number"}
              small
              look="font-mono"
            />
            <KindOfAccount />
          </>
        )}
      </Form>
    </section>
  );
}
