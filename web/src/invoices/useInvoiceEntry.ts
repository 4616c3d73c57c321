import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type KeyboardEvent, type RefObject } from "react";
import { useNavigate } from "react-router";
import { api, call, Refused, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { useDeed } from "../parts/useDeed";
import { useKept } from "../parts/useKept";
import type { Entered } from "./EnteredNow";
import { accountOf, EMPTY, type LineEntry } from "./InvoiceLines";
import type { Correcting, TypedDocument } from "./useCorrecting";

type Typed = TypedDocument;

function matching(found: Schemas["Choice"][] | undefined, text: string): Schemas["Choice"] | undefined {
  const wanted = text.trim().toLowerCase();
  return found?.find((v) => v.number.toLowerCase() === wanted || v.name.toLowerCase() === wanted);
}

/**
 * A document as it is typed, what the server says of it, and entering it.
 *
 * @param form where it is typed: the cursor goes to the next reference once it is entered
 * @param correcting the document it is entered anew for
 */
export function useInvoiceEntry(form: RefObject<HTMLFormElement | null>, correcting?: Correcting) {
  const navigate = useNavigate();
  const session = useSession();
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const [typed, type, forget] = useKept<Typed>(
    correcting ? `invoice for ${correcting.id}` : "invoice by hand",
    correcting?.given ?? {
      vendorText: "",
      kind: "INVOICE",
      head: { reference: "", date: session.today, apart: "", terms: "", due: "", own: false },
      lines: [EMPTY],
    },
  );
  const { vendorText, kind, head, lines } = typed;
  const setVendorText = (text: string) => type((now) => ({ ...now, vendorText: text }));
  const setKind = (next: Typed["kind"]) => type((now) => ({ ...now, kind: next }));
  const setHead = (next: Partial<Typed["head"]>) =>
    type((now) => ({ ...now, head: { ...now.head, ...next } }));
  const setLines = (next: (before: LineEntry[]) => LineEntry[]) =>
    type((now) => ({ ...now, lines: next(now.lines) }));
  const [last, setLast] = useState<{ vendor: Schemas["Choice"]; head: typeof head; lines: LineEntry[] }>();
  const [entered, setEntered] = useState<Entered[]>([]);
  const accounts = useQuery({
    queryKey: ["ledger-accounts"],
    queryFn: () => call(api.GET("/api/ledger-accounts")),
    staleTime: 300_000,
  });
  const found = useQuery({
    queryKey: ["vendors", vendorText],
    queryFn: () => call(api.GET("/api/vendors", { params: { query: { text: vendorText } } })),
  });
  // a link from a vendor's page names the vendor
  const linked = useQuery({
    queryKey: ["vendor", Number(values.vendor)],
    enabled: Boolean(values.vendor) && vendorText === "",
    queryFn: () => call(api.GET("/api/vendors/{id}", { params: { path: { id: Number(values.vendor) } } })),
  });
  const chosen = vendorText
    ? matching(found.data, vendorText)
    : linked.data && {
        id: linked.data.id,
        number: linked.data.number,
        name: linked.data.name,
        group: linked.data.group,
      };
  const known = accounts.data?.filter((one) => one.open) ?? [];
  const amounts = lines.map((line) => line.amount).filter((amount) => amount.trim() !== "");
  const preview = useQuery({
    queryKey: ["entry-preview", chosen?.id, head.date, head.terms, head.due, head.currency, amounts],
    placeholderData: keepPreviousData,
    enabled: Boolean(chosen) && head.date !== "",
    retry: false,
    queryFn: () =>
      call(
        api.GET("/api/invoices/preview", {
          params: {
            query: {
              vendor: chosen!.id,
              invoiceDate: head.date,
              terms: head.terms.trim() || undefined,
              dueDate: head.due || undefined,
              currency: head.currency || undefined,
              amounts: amounts.join("\n"),
            },
          },
        }),
      ),
  });
  const setLine = (i: number, next: Partial<LineEntry>) =>
    setLines((before) => before.map((line, j) => (j === i ? { ...line, ...next } : line)));

  /** Whoever types fast may be done before the vendors are found. */
  const vendorNow = async () =>
    chosen ??
    (vendorText
      ? matching(
          await call(api.GET("/api/vendors", { params: { query: { text: vendorText.trim() } } })),
          vendorText,
        )
      : undefined);
  const entering = useDeed(
    async () => {
      const of = await vendorNow();
      if (!of)
        throw new Refused(0, "no-vendor", "Choose the vendor by number or name.", { vendor: "missing" });
      const filled = lines.filter((line) => line.amount.trim() !== "");
      const unknown = filled.find((line) => !accountOf(known, line.account));
      if (unknown)
        throw new Refused(0, "no-account", `There is no account “${unknown.account}”. Type its code.`, {
          lines: "unknown account",
        });
      const body: Schemas["InvoiceEntry"] = {
        kind,
        vendor: of.id,
        reference: head.reference,
        invoiceDate: head.date,
        notDiscountable: head.apart || undefined,
        ownCheck: head.own,
        terms: head.terms.trim() || undefined,
        dueDate: head.due || undefined,
        currency: head.currency || undefined,
        lines: filled.map((line) => ({
          account: accountOf(known, line.account)!.id,
          amount: line.amount,
          job: line.job || undefined,
        })),
      };
      if (correcting) return { corrected: await correcting.enter(body), of };
      return { made: await call(api.POST("/api/invoices", { body })), of };
    },
    {
      done: async ({ made, corrected, of }) => {
        if (!made) {
          forget();
          await queries.invalidateQueries();
          navigate(`/invoices/${corrected}`);
          return;
        }
        setEntered((before) => [
          {
            entry: made.entry,
            vendor: of.name,
            reference: head.reference,
            amount: `${made.amount.text} ${made.amount.currency}`,
            dueDate: made.dueDate,
            left: made.open.text === made.amount.text ? "" : made.open.text,
          },
          ...before,
        ]);
        setLast({ vendor: of, head, lines });
        type((now) => ({
          ...now,
          head: { ...now.head, reference: "", apart: "", terms: "", due: "", own: false },
          lines: [EMPTY],
        }));
        await queries.invalidateQueries({ queryKey: ["work"] });
        form.current?.querySelector<HTMLInputElement>("[name=reference]")?.focus();
      },
    },
  );
  const { refused } = entering;
  // what is wrong stands below, with the fields at fault
  const submit = () => entering.must().catch(() => undefined);
  /** Ctrl D: the field above, or for the first line and the head what was entered last. */
  const repeat = (event: KeyboardEvent<HTMLFormElement>) => {
    if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "d") return;
    event.preventDefault();
    const field = event.target as HTMLInputElement;
    const [name, place] = field.name.split("-");
    if (place !== undefined) {
      const i = Number(place);
      const above = i > 0 ? lines[i - 1] : last?.lines[0];
      if (above) setLine(i, { [name as keyof LineEntry]: above[name as keyof LineEntry] });
    } else if (last && name === "vendor") {
      setVendorText(last.vendor.number);
    } else if (last && (name === "reference" || name === "date" || name === "apart")) {
      setHead({ [name]: last.head[name] });
    }
  };
  return {
    vendorText,
    kind,
    head,
    lines,
    known,
    chosen,
    /** The vendors that what is typed may mean. */
    vendors: found.data,
    preview,
    /** What is typed of amounts; empty while there is none. */
    amounts,
    entered,
    refused,
    today: session.today,
    setVendor: (text: string) => {
      setVendorText(text);
      // another vendor has another usual one
      setHead({ currency: "" });
      change({ vendor: undefined });
    },
    setKind,
    setHead,
    setLine,
    addLine: () => setLines((before) => [...before, EMPTY]),
    submit,
    repeat,
  };
}
