import { useQuery } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { ChangeFacts } from "./ChangeFacts";

type Vendor = Schemas["VendorView"];

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
