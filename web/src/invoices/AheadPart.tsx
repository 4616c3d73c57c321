import { useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";

/** What was paid ahead: by which payment, or what waits to be matched with this invoice. */
export function AheadPart({ document }: { document: Schemas["InvoicePage"] }) {
  const { ahead, waiting } = document;
  if (ahead)
    return (
      <section aria-label="Paid ahead">
        <h2 className="mb-1 text-base font-bold">Paid ahead</h2>
        <p>
          By{" "}
          <Link className="go" to={ahead.to}>
            {ahead.name}
          </Link>
          , and it ends when that payment is undone.
          {document.comesBack && (
            <>
              {" "}
              It is matched when an invoice {document.reference} arrives, or by hand on{" "}
              <Link className="go" to={`/vendors/${document.vendor}?show=CREDITS`}>
                the vendor’s page
              </Link>
              .
            </>
          )}
        </p>
      </section>
    );
  if (waiting.length === 0) return null;
  return (
    <section aria-label="Paid ahead of it">
      <h2 className="mb-1 text-base font-bold">Paid ahead of it</h2>
      <ul>
        {waiting.map((one) => (
          <Waiting key={one.id} document={document} one={one} />
        ))}
      </ul>
    </section>
  );
}

function Waiting({
  document,
  one,
}: {
  document: Schemas["InvoicePage"];
  one: Schemas["InvoicePage"]["waiting"][number];
}) {
  const { roles } = useSession();
  const queries = useQueryClient();
  const matching = useDeed(
    () =>
      call(
        api.POST("/api/offsets", {
          body: { vendor: document.vendor, invoices: [document.id], credits: [one.id] },
        }),
      ),
    {
      done: async (made) => {
        await queries.invalidateQueries();
        toast(`Matched: ${made.amount.text} of it was paid ahead.`);
      },
    },
  );
  return (
    <li className="border-hair flex flex-wrap items-center gap-3 border-t py-1">
      <Link className="go font-mono" to={`/invoices/${one.id}`}>
        {one.reference}
      </Link>
      <span>
        {one.open} waits{one.from && `, usable from ${one.from}`}
      </span>
      {roles.includes("CLERK") && (
        <button
          type="button"
          className="go min-h-6"
          disabled={matching.busy}
          onClick={() => void matching.run()}
        >
          match it
        </button>
      )}
      <Refusal deed={matching} />
    </li>
  );
}
