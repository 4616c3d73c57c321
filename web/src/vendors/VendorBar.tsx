import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";

export type Asking = "hold" | "release" | "hold-invoice" | "release-invoice" | "offset" | "merge";

/** Whether a row of the account is a document with a page of its own. */
export function isDocument(row: Schemas["AccountRow"]): boolean {
  return row.kind === "INVOICE" || row.kind === "CREDIT" || row.kind === "PREPAYMENT";
}

/** What can be done with the vendor, and with the entry under the cursor. */
export function VendorBar({
  vendor,
  at,
  clerk,
  holder,
  onAsk,
}: {
  vendor: Schemas["VendorView"];
  at: Schemas["AccountRow"] | undefined;
  clerk: boolean;
  /** May hold, and release an invoice's hold. */
  holder: boolean;
  onAsk: (what: Asking) => void;
}) {
  const session = useSession();
  return (
    <>
      {holder && !vendor.held && <Button onClick={() => onAsk("hold")}>Hold the vendor…</Button>}
      {session.roles.includes("CONTROLLER") && vendor.held && (
        <Button onClick={() => onAsk("release")}>Release the vendor…</Button>
      )}
      {holder && at && isDocument(at) && !at.settled && (
        <Button onClick={() => onAsk(at.held ? "release-invoice" : "hold-invoice")}>
          {at.held ? `Release ${at.reference}…` : `Hold ${at.reference}…`}
        </Button>
      )}
      {session.roles.includes("CONTROLLER") && !vendor.mergedInto && (
        <Button onClick={() => onAsk("merge")}>It is the same as…</Button>
      )}
      <span className="text-faint text-note">
        {vendor.held &&
          !session.roles.includes("CONTROLLER") &&
          "Only a controller releases a vendor’s hold."}
      </span>
      <span className="ml-auto" />
      {clerk && (
        <Link className="go min-h-6" to={`/enter?vendor=${vendor.id}`}>
          Enter an invoice
        </Link>
      )}
      {clerk && (
        <Button look="deed" onClick={() => onAsk("offset")}>
          Offset credits…
        </Button>
      )}
    </>
  );
}
