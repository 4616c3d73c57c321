import { api, call, type Schemas } from "../api/client";
import { ChoiceEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import { useAgain, type Account } from "./BankAccountPage";
import { whole } from "./whole";

const CHECKS = {
  wayName: "Checks",
  prefix: "",
  first: "",
  last: "",
  stock: "BLANK",
  micr: "C########C|KC",
  currencyWord: "dollars",
  validity: "Not valid after 180 days",
};

/** Checks as a way to pay, with their series of numbers. */
export function AddSeries({ account, onClose }: { account: Account; onClose: () => void }) {
  const again = useAgain();
  const form = useKeptForm(
    `series ${account.id}`,
    CHECKS,
    (typed) =>
      call(
        api.POST("/api/bank-accounts/{id}/series", {
          params: { path: { id: account.id } },
          body: {
            ...typed,
            first: whole(typed.first) ?? 0,
            last: typed.last.trim() === "" ? undefined : (whole(typed.last) ?? 0),
            stock: typed.stock as Schemas["SeriesWanted"]["stock"],
          },
        }),
      ),
    {
      done: async () => {
        await again();
        onClose();
      },
      said: (_, { stock }) =>
        stock === "BY_HAND"
          ? "Checks of this book can be recorded now."
          : "Batches can be made and checks printed.",
    },
  );
  return (
    <Form form={form} label="Series" deed="Add these checks" onClose={onClose} className="gap-3">
      <div className="grid grid-cols-3 gap-3 max-[640px]:grid-cols-1">
        <Entry name="wayName" label="What this way to pay is called" />
        <Entry name="first" label="First number" inputMode="numeric" look="font-mono" autoFocus />
        <Entry name="last" label="Last number of the stock; empty: it goes on" look="font-mono" />
        <ChoiceEntry
          name="stock"
          label="Paper"
          choices={[
            { value: "BLANK", text: "blank: we print number and MICR line" },
            { value: "NUMBERED", text: "numbered: they are on the paper" },
            { value: "BY_HAND", text: "a check book: written by hand, recorded here" },
          ]}
        />
        <Entry name="prefix" label="Prefix; empty for most" look="font-mono" />
        {form.watch("stock") !== "BY_HAND" && (
          <>
            <Entry name="currencyWord" label="Word that ends the amount" />
            <Entry
              name="micr"
              className="col-span-2"
              label="MICR line left and right of the routing number: C on-us, # number, K account"
              look="font-mono"
            />
            <Entry name="validity" label="How long it is good for, in words" />
          </>
        )}
      </div>
    </Form>
  );
}
