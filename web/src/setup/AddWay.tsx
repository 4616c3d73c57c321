import { useQuery } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { ChoiceEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import { useAgain, type Account } from "./BankAccountPage";

type Method = Schemas["WayWanted"]["method"];

/** What is to be known of a way before it is added. */
const SAYS: Partial<Record<Method, string>> = {
  ACH: "Its payments go to the bank in files, under references of their own. It needs a routing number and an account number of the payee.",
  CREDIT_TRANSFER:
    "Its payments go to the bank in files, under references of their own. It needs bank details of the payee.",
  WIRE: "Wires are ordered at the bank’s site: from an approved list of ours, each confirmed with the reference the bank gave it; or by others, and recorded here afterwards.",
  CARD: "What is paid by card is owed to its issuer from then on: its payments are recorded here, and stand on the issuer’s statements.",
};

/** A way to pay that takes no check numbers. */
export function AddWay({ account, onClose }: { account: Account; onClose: () => void }) {
  const again = useAgain();
  const form = useKeptForm(
    `way ${account.id}`,
    { wayName: "", method: account.otherWays[0]?.method ?? "", owed: "", issuer: "", fromList: "yes" },
    (typed) =>
      call(
        api.POST("/api/bank-accounts/{id}/ways", {
          params: { path: { id: account.id } },
          body: {
            wayName: typed.wayName,
            method: typed.method as Method,
            ...(typed.method === "WIRE" && { fromList: typed.fromList === "yes" }),
            ...(typed.method === "CARD" && {
              owed: typed.owed ? Number(typed.owed) : undefined,
              issuer: typed.issuer,
            }),
          },
        }),
      ),
    {
      done: async () => {
        await again();
        onClose();
      },
      said: (_, { method, fromList }) =>
        method === "CREDIT_TRANSFER" || method === "ACH"
          ? "Say what the bank agreed on for its files, then batches can be paid by it."
          : method === "WIRE" && fromList === "yes"
            ? "Batches can be paid by it now."
            : "What is paid so can be recorded now.",
    },
  );
  const method = form.watch("method");
  const accounts = useQuery({
    queryKey: ["ledger-accounts"],
    queryFn: () => call(api.GET("/api/ledger-accounts")),
    enabled: method === "CARD",
  });
  const owed = (accounts.data ?? [])
    .filter((one) => one.open && one.kind === "LIABILITY")
    .map((one) => ({ value: String(one.id), text: `${one.code} ${one.name}` }));
  return (
    <Form form={form} label="Way to pay" deed="Add this way" onClose={onClose}>
      <ChoiceEntry
        name="method"
        label="What carries the money"
        choices={account.otherWays.map((one) => ({ value: one.method, text: one.words }))}
      />
      <Entry name="wayName" label="What this way to pay is called" autoFocus />
      {method === "WIRE" && (
        <ChoiceEntry
          name="fromList"
          label="How wires are made"
          choices={[
            { value: "yes", text: "approved here first, then ordered from a list" },
            { value: "no", text: "ordered by others, and recorded here afterwards" },
          ]}
        />
      )}
      {method === "CARD" && (
        <>
          <Entry name="issuer" label="Its issuer, by number or whole name" />
          <ChoiceEntry
            name="owed"
            label="The account of what is owed to it"
            choices={[{ value: "", text: "choose one" }, ...owed]}
          />
        </>
      )}
      <p className="text-faint text-note">{SAYS[method as Method]}</p>
    </Form>
  );
}
