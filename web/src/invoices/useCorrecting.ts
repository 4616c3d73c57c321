import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { useKept } from "../parts/useKept";
import type { LineEntry } from "./InvoiceLines";

/** What is typed of a document and not entered yet. */
export interface TypedDocument {
  vendorText: string;
  kind: "INVOICE" | "CREDIT";
  head: {
    reference: string;
    date: string;
    apart: string;
    terms: string;
    due: string;
    own: boolean;
    /** Empty for the vendor's usual one. */
    currency?: string;
  };
  lines: LineEntry[];
}

function asTyped(page: Schemas["InvoicePage"], vendorNumber: string): TypedDocument {
  return {
    vendorText: vendorNumber,
    kind: page.kind === "CREDIT" ? "CREDIT" : "INVOICE",
    head: {
      reference: page.reference,
      date: page.invoiceDate,
      apart: page.notDiscountable,
      terms: "",
      due: "",
      own: page.ownCheck,
      currency: page.amount.currency,
    },
    lines: page.lines.map((line) => ({ account: line.code, amount: line.amount, job: line.job })),
  };
}

/** The document that is entered anew in place of a wrong one; undefined where none is. */
export function useCorrecting() {
  const [values] = useAddress();
  const { today } = useSession();
  const id = Number(values.corrects) || undefined;
  const page = useQuery({
    queryKey: ["invoice", id],
    enabled: id !== undefined,
    queryFn: () => call(api.GET("/api/invoices/{id}", { params: { path: { id: id! } } })),
  });
  const vendor = useQuery({
    queryKey: ["vendor", page.data?.vendor],
    enabled: page.data !== undefined,
    queryFn: () => call(api.GET("/api/vendors/{id}", { params: { path: { id: page.data!.vendor } } })),
  });
  const first = useMemo(() => ({ on: today, reason: "" }), [today]);
  const [why, setWhy, forget] = useKept(`correcting ${id}`, first);
  const given = useMemo(
    () => (page.data && vendor.data ? asTyped(page.data, vendor.data.number) : undefined),
    [page.data, vendor.data],
  );
  if (id === undefined) return undefined;
  return {
    id,
    page: page.data,
    error: page.error ?? vendor.error,
    given,
    why,
    setWhy,
    enter: async (anew: Schemas["InvoiceEntry"]) => {
      const made = await call(
        api.POST("/api/invoices/{id}/correct", {
          params: { path: { id } },
          // the right one is posted on the day on which the wrong one is reversed, whatever months are locked before
          body: { on: why.on, reason: why.reason, anew: { ...anew, ledgerDate: why.on } },
        }),
      );
      forget();
      return made.entry;
    },
  };
}

export type Correcting = NonNullable<ReturnType<typeof useCorrecting>>;
