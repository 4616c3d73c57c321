import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { NewPayee } from "./NewPayee";
import type { TypedRow } from "./rows";

/** What helps with the row that is typed: who is paid, a payee to enter, how to say what it is for. */
export function BesideDirect({
  row,
  way,
  seen,
  clerk,
  onPayee,
}: {
  row: TypedRow;
  way: Schemas["DirectWay"];
  seen: Schemas["LookedDirect"] | undefined;
  clerk: boolean;
  onPayee: (number: string) => void;
}) {
  const unknown = seen?.code === "no-vendor" && row.vendor.trim() !== "";
  return (
    <div className="flex flex-col gap-4">
      {seen?.vendor != null && (
        <h2 className="text-base font-bold">
          <Link className="go" to={`/vendors/${seen.vendor}`}>
            {seen.payee}
          </Link>
        </h2>
      )}
      {unknown && clerk && <NewPayee key={row.vendor} name={row.vendor} way={way} onEntered={onPayee} />}
      <div className="text-faint flex flex-col gap-2">
        <p>
          <b>What it is for</b>: accounts of the ledger, each with its job and its share, such as{" "}
          <span className="font-mono">5400</span> or{" "}
          <span className="font-mono">5600/PIER-2 700.00; 5400 525.00</span>; a share may be below zero. What
          is paid ahead of an invoice names the reference that will carry:{" "}
          <span className="font-mono">ahead PO-118</span>, or{" "}
          <span className="font-mono">ahead PO-118 from 2026-12-15</span> where it may be used from a day
          only.
        </p>
        <p>
          <b>The payee reads</b> its reference on the stub, the advice or its bank’s statement: the number of
          a bill, a customer number, a month.
        </p>
        <p>The batch is approved before anything leaves, like any other.</p>
      </div>
    </div>
  );
}
