import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState, type KeyboardEvent } from "react";
import { api, call, Refused, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { shortDate } from "../parts/dates";
import { DayField } from "../parts/DayField";
import { Field } from "../parts/Field";
import { useDeed } from "../parts/useDeed";
import { useKept } from "../parts/useKept";
import { BesideEntry } from "./BesideEntry";
import { EnteredNow, type Entered } from "./EnteredNow";
import { accountOf, EMPTY, InvoiceLines, type LineEntry } from "./InvoiceLines";

/** What is typed and not entered yet. */
interface Typed {
  vendorText: string;
  kind: "INVOICE" | "CREDIT";
  head: { reference: string; date: string; apart: string; terms: string; due: string; own: boolean };
  lines: LineEntry[];
}

function matching(found: Schemas["Choice"][] | undefined, text: string): Schemas["Choice"] | undefined {
  const wanted = text.trim().toLowerCase();
  return found?.find((v) => v.number.toLowerCase() === wanted || v.name.toLowerCase() === wanted);
}

/** One invoice or credit by hand: Tab goes on, Enter enters, Ctrl D repeats what stands above. */
export function EnterInvoice() {
  const session = useSession();
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const [typed, type] = useKept<Typed>("invoice by hand", {
    vendorText: "",
    kind: "INVOICE",
    head: { reference: "", date: session.today, apart: "", terms: "", due: "", own: false },
    lines: [EMPTY],
  });
  const { vendorText, kind, head, lines } = typed;
  const setVendorText = (text: string) => type((now) => ({ ...now, vendorText: text }));
  const setKind = (next: Typed["kind"]) => type((now) => ({ ...now, kind: next }));
  const setHead = (next: Partial<Typed["head"]>) =>
    type((now) => ({ ...now, head: { ...now.head, ...next } }));
  const setLines = (next: (before: LineEntry[]) => LineEntry[]) =>
    type((now) => ({ ...now, lines: next(now.lines) }));
  const [last, setLast] = useState<{ vendor: Schemas["Choice"]; head: typeof head; lines: LineEntry[] }>();
  const [entered, setEntered] = useState<Entered[]>([]);
  const form = useRef<HTMLFormElement>(null);
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
  const expense = accounts.data?.filter((a) => a.kind === "EXPENSE" && a.open) ?? [];
  const amounts = lines.map((line) => line.amount).filter((amount) => amount.trim() !== "");
  const preview = useQuery({
    queryKey: ["entry-preview", chosen?.id, head.date, head.terms, head.due, amounts],
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
      const unknown = filled.find((line) => !accountOf(expense, line.account));
      if (unknown)
        throw new Refused(0, "no-account", `There is no account “${unknown.account}”. Type its code.`, {
          lines: "unknown account",
        });
      const made = await call(
        api.POST("/api/invoices", {
          body: {
            kind,
            vendor: of.id,
            reference: head.reference,
            invoiceDate: head.date,
            notDiscountable: head.apart || undefined,
            ownCheck: head.own,
            terms: head.terms.trim() || undefined,
            dueDate: head.due || undefined,
            lines: filled.map((line) => ({
              account: accountOf(expense, line.account)!.id,
              amount: line.amount,
              job: line.job || undefined,
            })),
          },
        }),
      );
      return { made, of };
    },
    {
      done: async ({ made, of }) => {
        setEntered((before) => [
          {
            entry: made.entry,
            vendor: of.name,
            reference: head.reference,
            amount: `${made.amount.text} ${made.amount.currency}`,
            dueDate: made.dueDate,
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
  const fault = (name: string) => (refused?.fields[name] ? { "aria-invalid": true } : {});
  return (
    <Station
      title="Enter an invoice"
      sentence={
        <>
          Enter {kind === "INVOICE" ? "an invoice" : "a credit"}
          {chosen && (
            <>
              {" "}
              of <b>{chosen.name}</b>
            </>
          )}
          {preview.data && (
            <>
              , {preview.data.terms}: due {shortDate(preview.data.dueDate)}
              {preview.data.discountDate && `, discount until ${shortDate(preview.data.discountDate)}`}
            </>
          )}
          .
        </>
      }
      answer={
        <span>
          Tab goes on · Ctrl D repeats the field above, or the one of the last entry · Enter enters it
        </span>
      }
      list={
        <form
          ref={form}
          className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto p-5"
          onKeyDown={repeat}
          onSubmit={(event) => {
            event.preventDefault();
            void submit();
          }}
        >
          <div className="grid grid-cols-[120px_minmax(200px,1.4fr)_1fr_150px_130px] gap-3 max-[1100px]:grid-cols-2">
            <Field label="What it is" small>
              <select value={kind} onChange={(event) => setKind(event.target.value as typeof kind)}>
                <option value="INVOICE">invoice</option>
                <option value="CREDIT">credit</option>
              </select>
            </Field>
            <Field label="Vendor, by number or name" small>
              <input
                name="vendor"
                list="vendors-known"
                autoFocus
                value={vendorText || chosen?.number || ""}
                onChange={(event) => {
                  setVendorText(event.target.value);
                  change({ vendor: undefined });
                }}
                {...fault("vendor")}
              />
              <datalist id="vendors-known">
                {found.data?.map((v) => (
                  <option key={v.id} value={v.number}>
                    {v.name}
                  </option>
                ))}
              </datalist>
            </Field>
            <Field label="Their reference" small>
              <input
                name="reference"
                maxLength={40}
                value={head.reference}
                onChange={(event) => setHead({ reference: event.target.value })}
                {...fault("reference")}
              />
            </Field>
            <DayField
              label="Invoice date"
              name="date"
              value={head.date}
              onDay={(date) => setHead({ date: date ?? "" })}
            />
            <Field label="Without discount" small>
              <input
                name="apart"
                inputMode="decimal"
                className="text-right"
                value={head.apart}
                onChange={(event) => setHead({ apart: event.target.value })}
                {...fault("notDiscountable")}
              />
            </Field>
          </div>
          <div className="grid grid-cols-[minmax(200px,1fr)_150px_1fr] gap-3 max-[1100px]:grid-cols-2">
            <Field label="Its own terms, where it has any" small>
              <input
                name="terms"
                maxLength={60}
                placeholder={preview.data?.terms ?? "2% 10, net 30"}
                value={head.terms}
                onChange={(event) => setHead({ terms: event.target.value })}
                {...fault("terms")}
              />
            </Field>
            <DayField
              label="Its own due date"
              name="due"
              value={head.due}
              onDay={(due) => setHead({ due: due ?? "" })}
            />
          </div>
          <InvoiceLines
            lines={lines}
            accounts={expense}
            atFault={Boolean(refused?.fields.lines)}
            onLine={setLine}
            onFilled={() => setLines((before) => [...before, EMPTY])}
          />
          <div className="flex items-center gap-4">
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="min-h-0"
                checked={head.own}
                onChange={(event) => setHead({ own: event.target.checked })}
              />
              It must have its own check
            </label>
            <span className="ml-auto">
              {preview.error ? (
                <span className="text-rust">{preview.error.message}</span>
              ) : (
                preview.data && (
                  <>
                    Total <b>{preview.data.total}</b> {preview.data.currency}
                  </>
                )
              )}
            </span>
            <Button type="submit" look="deed" disabled={!session.roles.includes("CLERK")}>
              Enter it
            </Button>
          </div>
          {refused && (
            <p role="alert" className="border-rust text-rust border-l-4 pl-3">
              {refused.message}
            </p>
          )}
        </form>
      }
      slip={
        <>
          {chosen && (
            <BesideEntry
              vendor={chosen}
              kind={kind}
              reference={head.reference}
              date={head.date || session.today}
              amount={preview.data && amounts.length > 0 ? preview.data.total : ""}
            />
          )}
          <EnteredNow entered={entered} />
        </>
      }
    />
  );
}
