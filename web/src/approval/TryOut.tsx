import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { RouteSteps } from "./RouteSteps";
import { Field } from "../parts/Field";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";

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
  const [batch, setBatch] = useState("");
  const [account, setAccount] = useState(String(accounts[0]?.id ?? ""));
  const [total, setTotal] = useState("");
  const [largest, setLargest] = useState("");
  const [kinds, setKinds] = useState<string[]>([]);
  const [tried, setTried] = useState<Schemas["TriedRoutes"]>();
  const trying = useDeed((body: Schemas["TryRoutes"]) => call(api.POST("/api/routes/try", { body })), {
    done: setTried,
    failed: () => setTried(undefined),
  });
  const batches = useQuery({
    queryKey: ["batches", ["DRAFT", "IN_APPROVAL"]],
    queryFn: () =>
      call(api.GET("/api/batches", { params: { query: { state: ["DRAFT", "IN_APPROVAL", "APPROVED"] } } })),
  });
  return (
    <section aria-label="Try out">
      <h2 className="text-base font-bold">Which route would it take?</h2>
      <form
        className="mt-2 flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          const thought = {
            account: Number(account),
            total: total || "0",
            largest: largest || "0",
            marks: kinds as Schemas["TryRoutes"]["marks"],
          };
          void trying
            .must({ content, ...(batch ? { batch: Number(batch) } : thought) })
            .catch(() => undefined);
        }}
      >
        <Field label="A batch" small>
          <select value={batch} onChange={(event) => setBatch(event.target.value)}>
            <option value="">one that is only thought of</option>
            {batches.data?.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}, {one.amount.text} {one.amount.currency}
              </option>
            ))}
          </select>
        </Field>
        {!batch && (
          <>
            <Field label="Bank account" small>
              <select value={account} onChange={(event) => setAccount(event.target.value)}>
                {accounts.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}, {one.currency}
                  </option>
                ))}
              </select>
            </Field>
            <div className="flex gap-2">
              <Field label="Total" small className="min-w-0 flex-1">
                <input
                  inputMode="decimal"
                  className="w-full text-right"
                  value={total}
                  onChange={(event) => setTotal(event.target.value)}
                />
              </Field>
              <Field label="Largest payment" small className="min-w-0 flex-1">
                <input
                  inputMode="decimal"
                  className="w-full text-right"
                  value={largest}
                  onChange={(event) => setLargest(event.target.value)}
                />
              </Field>
            </div>
            <fieldset>
              <legend className="text-faint text-note">Marks</legend>
              {marks.map((mark) => (
                <label key={mark.kind} className="flex min-h-6 items-center gap-2">
                  <input
                    type="checkbox"
                    className="min-h-0"
                    checked={kinds.includes(mark.kind)}
                    onChange={(event) =>
                      setKinds(
                        event.target.checked
                          ? [...kinds, mark.kind]
                          : kinds.filter((kind) => kind !== mark.kind),
                      )
                    }
                  />
                  {mark.words}
                </label>
              ))}
            </fieldset>
          </>
        )}
        <Button type="submit" className="self-start">
          Try it
        </Button>
      </form>
      <Refusal deed={trying} />
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
