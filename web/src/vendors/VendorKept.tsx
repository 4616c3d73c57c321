import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { Facts } from "../parts/Facts";
import { Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import { asWanted, VendorFields } from "./VendorFields";
import type { Vendor } from "./VendorPage";

/** What one person keeps and changes of a vendor; addresses and bank details take two. */
export function VendorKept({ vendor }: { vendor: Vendor }) {
  const [changing, setChanging] = useState(false);
  const kept = useQuery({
    queryKey: ["vendor-kept", vendor.id],
    queryFn: () => call(api.GET("/api/vendors/{id}/kept", { params: { path: { id: vendor.id } } })),
  });
  const facts: [string, string][] = [
    ["Terms", vendor.terms],
    ["Priority", String(vendor.priority)],
    [
      "Method",
      `${vendor.method}, ${vendor.currency}${kept.data?.alsoByWords ? `; by ${kept.data.alsoByWords} where somebody says so` : ""}`,
    ],
    ["Group", vendor.group],
  ];
  if (vendor.oneTime) facts.push(["Payee", "one-time: every payment to it is marked"]);
  if (kept.data && kept.data.paperwork.words.length > 0)
    facts.push(["Papers", kept.data.paperwork.words.join(". ")]);
  if (kept.data?.taxNumber || kept.data?.reportable !== "NO")
    facts.push([
      "Tax",
      [kept.data?.taxNumber, kept.data?.reportable === "NO" ? "" : kept.data?.reportableWords]
        .filter(Boolean)
        .join(", "),
    ]);
  return (
    <section>
      <Facts facts={facts.filter(([, value]) => value !== "")} />
      {kept.data?.mayChange && (
        <Button look="bare" className="mt-1" onClick={() => setChanging(true)}>
          Change these…
        </Button>
      )}
      {kept.data && (
        <Dialog open={changing} onClose={() => setChanging(false)} title={`Change ${vendor.name}`} wide>
          <Change
            key={kept.data.version}
            id={vendor.id}
            kept={kept.data}
            onClose={() => setChanging(false)}
          />
        </Dialog>
      )}
    </section>
  );
}

function Change({ id, kept, onClose }: { id: number; kept: Schemas["VendorKept"]; onClose: () => void }) {
  const queries = useQueryClient();
  const form = useKeptForm(
    `vendor ${id}`,
    {
      name: kept.name,
      group: kept.group,
      priority: String(kept.priority),
      method: kept.method,
      alsoBy: kept.alsoBy.join(" "),
      terms: kept.terms,
      email: kept.paperwork.email,
      advice: kept.paperwork.advice,
      checks: kept.paperwork.checks,
      dates: kept.paperwork.dates ?? "",
      reportable: kept.reportable,
      taxNumber: kept.taxNumber,
    },
    (typed) =>
      call(
        api.POST("/api/vendors/{id}", {
          params: { path: { id } },
          body: {
            // its end only is shown, so what stands there unchanged is no number
            facts: asWanted(typed, typed.taxNumber === kept.taxNumber ? undefined : typed.taxNumber),
            version: kept.version,
          },
        }),
      ),
    {
      secret: ["taxNumber"],
      done: async () => {
        await queries.invalidateQueries();
        onClose();
      },
      failed: () => queries.invalidateQueries({ queryKey: ["vendor-kept", id] }),
      said: () => "The vendor is as you typed it. Documents that are in keep the terms they came with.",
    },
  );
  return (
    <Form form={form} label="Vendor" deed="Change the vendor" onClose={onClose} className="gap-3">
      <VendorFields />
    </Form>
  );
}
