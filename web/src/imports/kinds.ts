import type { Schemas } from "../api/client";

export type Kind = "VENDORS" | "INVOICES" | "UBL";

export type Import = Schemas["ImportView"];

export const KINDS: Record<Kind, string> = {
  INVOICES: "invoices and credits (CSV)",
  VENDORS: "vendors (CSV)",
  UBL: "invoices and credit notes (UBL 2.1 XML)",
};

export const count = (n: number) => n.toLocaleString("en-US");
