import { useQueryClient } from "@tanstack/react-query";
import { api, call } from "../api/client";
import { DeedDialog } from "../parts/DeedDialog";
import type { Row, Vendor } from "./VendorPage";

/** Holds a vendor or one of its invoices, or releases it. */
export function Hold({
  vendor,
  row,
  asking,
  onClose,
}: {
  vendor: Vendor;
  row: Row | undefined;
  asking: string | undefined;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const invoice = asking === "hold-invoice" || asking === "release-invoice";
  const release = asking === "release" || asking === "release-invoice";
  const name = invoice ? row?.reference : vendor.name;
  return (
    <DeedDialog
      open={asking === "hold" || release || invoice}
      onClose={onClose}
      title={release ? `Release ${name}, ${invoice ? row?.state : `held: ${vendor.held}`}` : `Hold ${name}`}
      deed={release ? "Release it" : "Hold it"}
      reason={release ? "Why payments may go on" : "Why it is held"}
      run={async (reason) => {
        const body = { reason };
        if (asking === "release-invoice")
          await call(api.POST("/api/invoices/{id}/release", { params: { path: { id: row!.entry } }, body }));
        else if (invoice)
          await call(api.POST("/api/invoices/{id}/hold", { params: { path: { id: row!.entry } }, body }));
        else if (release)
          await call(api.POST("/api/vendors/{id}/release", { params: { path: { id: vendor.id } }, body }));
        else await call(api.POST("/api/vendors/{id}/hold", { params: { path: { id: vendor.id } }, body }));
        await queries.invalidateQueries();
      }}
    >
      {!release && (
        <p>
          {invoice
            ? "It is not paid until somebody releases it; in a draft it stops the batch from being sent."
            : "Nothing is paid to this vendor until a controller releases the hold; a draft with it cannot be sent."}
        </p>
      )}
    </DeedDialog>
  );
}
