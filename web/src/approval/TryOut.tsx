import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useWatch } from "react-hook-form";
import { api, call, type Schemas } from "../api/client";
import { ChecksEntry, ChoiceEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import { RouteSteps } from "./RouteSteps";

/** Which route a batch would take, and why: a batch there is, or one that is only thought of. */
export function TryOut({
  content,
  marks,
  accounts,
}: {
  content: Schemas["PolicyContent"];
  marks: Schemas["MarkChoice"][];
  accounts: Schemas["BankAccountView"][];
}) {
  const [tried, setTried] = useState<Schemas["TriedRoutes"]>();
  const form = useKeptForm(
    "try routes",
    { batch: "", account: String(accounts[0]?.id ?? ""), total: "", largest: "", marks: "" },
    ({ batch, account, total, largest, marks: kinds }) => {
      const thought = {
        account: Number(account),
        total: total || "0",
        largest: largest || "0",
        marks: kinds.split(" ").filter(Boolean) as Schemas["TryRoutes"]["marks"],
      };
      const body = { content, ...(batch ? { batch: Number(batch) } : thought) };
      return call(api.POST("/api/routes/try", { body }));
    },
    { stays: true, done: setTried, failed: () => setTried(undefined) },
  );
  const batch = useWatch({ control: form.control, name: "batch" });
  const batches = useQuery({
    queryKey: ["batches", ["DRAFT", "IN_APPROVAL"]],
    queryFn: () =>
      call(api.GET("/api/batches", { params: { query: { state: ["DRAFT", "IN_APPROVAL", "APPROVED"] } } })),
  });
  return (
    <section aria-label="Try out">
      <h2 className="text-base font-bold">Which route would it take?</h2>
      <Form form={form} label="What is tried" deed="Try it" look="plain" className="mt-2 gap-2">
        <ChoiceEntry
          name="batch"
          label="A batch"
          small
          choices={[
            { value: "", text: "one that is only thought of" },
            ...(batches.data ?? []).map((one) => ({
              value: String(one.id),
              text: `${one.name}, ${one.amount.text} ${one.amount.currency}`,
            })),
          ]}
        />
        {!batch && (
          <>
            <ChoiceEntry
              name="account"
              label="Bank account"
              small
              choices={accounts.map((one) => ({
                value: String(one.id),
                text: `${one.name}, ${one.currency}`,
              }))}
            />
            <div className="flex gap-2">
              {(
                [
                  ["total", "Total"],
                  ["largest", "Largest payment"],
                ] as const
              ).map(([name, label]) => (
                <Entry
                  key={name}
                  name={name}
                  label={label}
                  small
                  inputMode="decimal"
                  className="min-w-0 flex-1"
                  look="w-full text-right"
                />
              ))}
            </div>
            <ChecksEntry
              name="marks"
              label="Marks"
              choices={marks.map((mark) => ({ value: mark.kind, text: mark.words }))}
            />
          </>
        )}
      </Form>
      {tried && (
        <div className="mt-4" aria-live="polite" data-tried>
          <p className="text-faint mb-2">{tried.asking}:</p>
          <RouteSteps route={tried.route} />
          <h3 className="text-faint mt-3 mb-1 text-note font-semibold">Looked at, lightest first</h3>
          <ul>
            {tried.route.considered.map((one) => (
              <li key={one.route} className={one.asked ? "" : "text-faint"}>
                {one.asked ? "✓" : "–"} {one.route}: {one.why}
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}
