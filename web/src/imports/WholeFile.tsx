import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { DayField } from "../parts/DayField";
import { Field } from "../parts/Field";
import type { Import } from "./kinds";

/** One choice for the whole file, where its documents say it otherwise or not at all. */
export function WholeFile({
  job,
  onChosen,
}: {
  job: Import;
  onChosen: (next: Partial<Schemas["FileChoices"]>) => void;
}) {
  const [ledgerDate, setLedgerDate] = useState(job.ledgerDate ?? undefined);
  const accounts = useQuery({
    queryKey: ["ledger-accounts"],
    queryFn: () => call(api.GET("/api/ledger-accounts")),
    staleTime: 300_000,
  });
  return (
    <details open={job.refused > 0}>
      <summary className="text-harbour min-h-6 cursor-pointer">How the whole file is read</summary>
      <form
        className="mt-2 flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          const data = new FormData(event.currentTarget);
          onChosen({
            mark: data.get("mark") === "COMMA" ? "COMMA" : "POINT",
            ledgerDate,
            account: String(data.get("account") ?? "") || undefined,
          });
        }}
      >
        {job.kind !== "UBL" && (
          <Field label="Decimals stand after" small>
            <select name="mark" defaultValue={job.mark}>
              <option value="POINT">a point: 1,250.00</option>
              <option value="COMMA">a comma: 1.250,00</option>
            </select>
          </Field>
        )}
        <DayField
          label="Ledger date of documents of locked months"
          value={ledgerDate ?? ""}
          onDay={setLedgerDate}
        />
        <Field label="Account of lines that name none" small>
          <select name="account" defaultValue={job.account ?? ""}>
            <option value="">{job.kind === "UBL" ? "the vendor’s usual one" : "none: refuse them"}</option>
            {accounts.data
              ?.filter((one) => one.kind === "EXPENSE" && one.open)
              .map((one) => (
                <option key={one.id} value={one.code}>
                  {one.code} {one.name}
                </option>
              ))}
          </select>
        </Field>
        <Button type="submit" className="self-start">
          Check it again like this
        </Button>
      </form>
    </details>
  );
}
