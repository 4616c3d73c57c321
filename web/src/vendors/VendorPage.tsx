import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useMemo, useState } from "react";
import { Link, useParams } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { TrailFold } from "../audit/TrailOf";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { longDate, shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { useDeed } from "../parts/useDeed";
import { Download } from "../parts/Download";
import { Grid, type Column } from "../parts/Grid";
import { ChoiceWord } from "../parts/Word";
import { ProposeChange, VendorChangesPart } from "./VendorChangesPart";

type Show = "ALL" | "OPEN" | "RESERVED" | "SETTLED" | "CREDITS" | "PAYMENTS";
type Row = Schemas["AccountRow"];
type Vendor = Schemas["VendorView"];

const SHOWN: Record<Show, string> = {
  ALL: "the account in time order",
  OPEN: "open invoices",
  RESERVED: "what is reserved in batches",
  SETTLED: "what is settled",
  CREDITS: "credits and prepayments",
  PAYMENTS: "payments",
};

/** Everything about one vendor: account, open and settled entries, credits, payments, holds, terms, addresses. */
export function VendorPage() {
  const id = Number(useParams().id);
  const vendor = useQuery({
    queryKey: ["vendor", id],
    queryFn: () => call(api.GET("/api/vendors/{id}", { params: { path: { id } } })),
  });
  return <Loaded query={vendor}>{(data) => <Page key={id} vendor={data} />}</Loaded>;
}

function Page({ vendor }: { vendor: Vendor }) {
  const session = useSession();
  const [values, change] = useAddress();
  const [selected, setSelected] = useState<Set<string>>(new Set());
  const [asking, setAsking] = useState<"hold" | "release" | "hold-invoice" | "release-invoice" | "offset">();
  const [proposing, setProposing] = useState<Schemas["AddressView"] | "further">();
  const show = (values.show ?? "ALL") as Show;
  const account = useQuery({
    queryKey: ["vendor-account", vendor.id, show],
    queryFn: () =>
      call(api.GET("/api/vendors/{id}/account", { params: { path: { id: vendor.id }, query: { show } } })),
  });
  const items = useMemo(() => account.data?.map((row) => ({ key: row.key, row })) ?? [], [account.data]);
  const at = account.data?.find((row) => row.key === values.at);
  const clerk = session.roles.includes("CLERK");
  const holder = clerk || session.roles.includes("CONTROLLER");
  return (
    <Station
      title={vendor.name}
      sentence={
        <>
          <b>{vendor.name}</b>, <span className="font-mono text-[15px]">{vendor.number}</span>:{" "}
          <ChoiceWord
            name="Shown"
            text={SHOWN[show]}
            value={show}
            choices={(Object.keys(SHOWN) as Show[]).map((value) => ({ value, text: SHOWN[value] }))}
            onChange={(next) => {
              setSelected(new Set());
              change({ show: next, at: undefined });
            }}
          />
          .
        </>
      }
      answer={
        <>
          <Figure value={money(vendor.open)}>open</Figure>
          <Figure value={money(vendor.reserved)}>reserved</Figure>
          <Figure value={money(vendor.credits)}>in credits</Figure>
          {vendor.held && (
            <span className="text-rust">
              <b>Held:</b> {vendor.held}
            </span>
          )}
          <Link className="text-harbour ml-auto underline" to={`/due?vendors=${vendor.id}`}>
            What is due
          </Link>
          <Download path={`/api/vendors/${vendor.id}/account/csv`} params={{ show }} />
        </>
      }
      list={
        <Loaded query={account}>
          {() => (
            <Grid
              label={SHOWN[show]}
              items={items}
              columns={show === "ALL" ? MOVEMENTS : show === "PAYMENTS" ? PAYMENTS : ENTRIES}
              cursor={values.at}
              onCursor={(key) => change({ at: key })}
              selected={show === "ALL" || show === "PAYMENTS" ? undefined : selected}
              onSelect={show === "ALL" || show === "PAYMENTS" ? undefined : setSelected}
              dim={(row) => row.settled}
              empty="Nothing here. Choose something else in the sentence above."
            />
          )}
        </Loaded>
      }
      bar={
        <>
          {holder && !vendor.held && <Button onClick={() => setAsking("hold")}>Hold the vendor…</Button>}
          {session.roles.includes("CONTROLLER") && vendor.held && (
            <Button onClick={() => setAsking("release")}>Release the vendor…</Button>
          )}
          {holder && at && (at.kind === "INVOICE" || at.kind === "CREDIT") && !at.settled && (
            <Button onClick={() => setAsking(at.held ? "release-invoice" : "hold-invoice")}>
              {at.held ? `Release ${at.reference}…` : `Hold ${at.reference}…`}
            </Button>
          )}
          <span className="text-faint text-[13px]">
            {vendor.held &&
              !session.roles.includes("CONTROLLER") &&
              "Only a controller releases a vendor’s hold."}
          </span>
          <span className="ml-auto" />
          {clerk && (
            <Link className="text-harbour min-h-6 underline" to={`/enter?vendor=${vendor.id}`}>
              Enter an invoice
            </Link>
          )}
          {clerk && (
            <Button look="deed" onClick={() => setAsking("offset")}>
              Offset credits…
            </Button>
          )}
        </>
      }
      slip={
        <>
          <About vendor={vendor} clerk={clerk} onPropose={holder ? setProposing : undefined} />
          {at && (at.kind === "INVOICE" || at.kind === "CREDIT") && (
            <div className="mt-4">
              <TrailFold key={at.key} subject={`invoice ${at.entry}`} />
            </div>
          )}
        </>
      }
      strip={
        <>
          <Hold vendor={vendor} row={at} asking={asking} onClose={() => setAsking(undefined)} />
          {proposing && (
            <ProposeChange
              vendor={vendor}
              address={proposing === "further" ? undefined : proposing}
              open
              onClose={() => setProposing(undefined)}
            />
          )}
          <ApplyCredits
            vendor={vendor}
            open={asking === "offset"}
            chosen={selected}
            onClose={() => setAsking(undefined)}
          />
        </>
      }
    />
  );
}

function money(amounts: Schemas["MoneyView"][]): string {
  return amounts.length === 0 ? "nothing" : amounts.map((m) => `${m.text} ${m.currency}`).join(" + ");
}

const REFERENCE: Column<Row> = {
  title: "Their reference",
  width: "minmax(110px,1fr)",
  cell: (row) => <span className="font-mono text-[13px]">{row.reference}</span>,
};
const MOVEMENTS: Column<Row>[] = [
  { title: "In the ledger", width: "122px", cell: (row) => longDate(row.date) },
  { title: "What", width: "minmax(140px,1fr)", cell: (row) => row.words },
  REFERENCE,
  { title: "Entry", width: "70px", right: true, cell: (row) => row.entry },
  { title: "Amount", width: "110px", right: true, cell: (row) => row.amount },
  { title: "Owed then", width: "120px", right: true, cell: (row) => row.balance },
];
const ENTRIES: Column<Row>[] = [
  { title: "Dated", width: "118px", cell: (row) => longDate(row.date) },
  { title: "Due", width: "88px", cell: (row) => (row.dueDate ? shortDate(row.dueDate) : "") },
  { title: "What", width: "70px", cell: (row) => row.words },
  REFERENCE,
  {
    title: "State",
    width: "minmax(120px,1.2fr)",
    cell: (row) => (
      <span className={row.held ? "text-brass" : ""} title={row.state}>
        {row.state}
      </span>
    ),
  },
  { title: "Amount", width: "100px", right: true, cell: (row) => row.amount },
  { title: "Open", width: "100px", right: true, cell: (row) => row.open },
];
const PAYMENTS: Column<Row>[] = [
  { title: "Check date", width: "122px", cell: (row) => longDate(row.date) },
  { title: "Payment", width: "minmax(160px,1fr)", cell: (row) => row.words },
  {
    title: "Number",
    width: "100px",
    cell: (row) => <span className="font-mono text-[13px]">{row.reference}</span>,
  },
  { title: "State", width: "110px", cell: (row) => row.state },
  { title: "Amount", width: "120px", right: true, cell: (row) => row.amount },
];

function About({
  vendor,
  clerk,
  onPropose,
}: {
  vendor: Vendor;
  clerk: boolean;
  onPropose: ((address: Schemas["AddressView"] | "further") => void) | undefined;
}) {
  const queries = useQueryClient();
  const takingBack = useDeed(
    (id: number) => call(api.POST("/api/offsets/{id}/undo", { params: { path: { id } } })),
    { done: () => queries.invalidateQueries() },
  );
  const facts: [string, string][] = [
    ["Terms", vendor.terms],
    ["Priority", String(vendor.priority)],
    ["Method", `${vendor.method}, ${vendor.currency}`],
    ["Group", vendor.group],
  ];
  if (vendor.oneTime) facts.push(["Payee", "one-time: every payment to it is marked"]);
  return (
    <div className="flex flex-col gap-4">
      <dl className="grid grid-cols-[90px_1fr] gap-y-1">
        {facts.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-faint">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      <section>
        <h2 className="text-faint mb-1 text-[13px] font-semibold">
          {vendor.addresses.length === 1 ? "Address" : "Addresses, the usual one first"}
        </h2>
        {vendor.addresses.map((address) => (
          <address key={address.id} className="mb-2 not-italic">
            {[address.payee, ...address.lines].map((text, i) => (
              <div key={i}>{text}</div>
            ))}
            {address.bank && <div className="text-faint text-[13px]">{address.bank}</div>}
            {!address.inForce && (
              <div className="text-brass text-[13px]">waits for a second person; nothing is paid to it</div>
            )}
            {onPropose && (
              <button
                type="button"
                className="text-harbour min-h-6 text-[13px] underline"
                onClick={() => onPropose(address)}
              >
                Propose a change…
              </button>
            )}
          </address>
        ))}
      </section>
      {onPropose && (
        <button
          type="button"
          className="text-harbour min-h-6 self-start underline"
          onClick={() => onPropose("further")}
        >
          Propose a further address…
        </button>
      )}
      <VendorChangesPart vendor={vendor} />
      <section>
        <h2 className="text-faint mb-1 text-[13px] font-semibold">Paid per year, by check date</h2>
        {vendor.paid.length === 0 && <p className="text-faint">Nothing was paid yet.</p>}
        <table className="w-full">
          <tbody>
            {vendor.paid.map((year) => (
              <tr key={`${year.year}${year.amount.currency}`}>
                <th scope="row" className="text-left font-normal">
                  {year.year}
                </th>
                <td className="text-faint text-right text-[13px]">
                  {year.count} {year.count === 1 ? "payment" : "payments"}
                </td>
                <td className="text-right">
                  {year.amount.text} {year.amount.currency}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      {vendor.offsets.length > 0 && (
        <section>
          <h2 className="text-faint mb-1 text-[13px] font-semibold">Offsets</h2>
          <ul>
            {vendor.offsets.map((offset) => (
              <li key={offset.id} className={`flex gap-2 ${offset.undone ? "text-faint line-through" : ""}`}>
                <span className="font-mono text-[13px]">{offset.reference}</span>
                <span>{shortDate(offset.date)}</span>
                <span className="ml-auto">{offset.amount.text}</span>
                {clerk && !offset.undone && (
                  <button
                    type="button"
                    className="text-harbour min-h-6 underline"
                    disabled={takingBack.busy}
                    onClick={() => void takingBack.run(offset.id)}
                  >
                    take back
                  </button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      <TrailFold subject={`vendor ${vendor.id}`} />
    </div>
  );
}

function Hold({
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

/** Credits laid against invoices at any time, without a payment. */
function ApplyCredits({
  vendor,
  open,
  chosen,
  onClose,
}: {
  vendor: Vendor;
  open: boolean;
  chosen: Set<string>;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const [off, setOff] = useState<Set<number>>(new Set());
  const entries = (show: Show) => ({
    queryKey: ["vendor-account", vendor.id, show],
    enabled: open,
    queryFn: () =>
      call(api.GET("/api/vendors/{id}/account", { params: { path: { id: vendor.id }, query: { show } } })),
  });
  const invoices = useQuery(entries("OPEN"));
  const credits = useQuery(entries("CREDITS"));
  const free = [...(invoices.data ?? []), ...(credits.data ?? [])].filter((row) => row.selectable);
  const wanted = free.filter(
    (row) => !off.has(row.entry) && (chosen.size === 0 || chosen.has(row.key) || row.kind === "CREDIT"),
  );
  const ids = (kind: string) => wanted.filter((row) => row.kind === kind).map((row) => row.entry);
  return (
    <DeedDialog
      open={open}
      onClose={() => {
        setOff(new Set());
        onClose();
      }}
      title={`Offset credits of ${vendor.name}`}
      deed={`Offset ${ids("INVOICE").length} ${ids("INVOICE").length === 1 ? "invoice" : "invoices"} and ${ids("CREDIT").length} ${ids("CREDIT").length === 1 ? "credit" : "credits"}`}
      run={async () => {
        const made = await call(
          api.POST("/api/offsets", {
            body: { vendor: vendor.id, invoices: ids("INVOICE"), credits: ids("CREDIT") },
          }),
        );
        await queries.invalidateQueries();
        toast(`Offset ${made.reference}: ${made.amount.text} settled without a payment.`);
      }}
    >
      <p className="mb-2">
        Oldest credits go against the invoices due first, as far as the smaller side goes. No discount is
        taken and no check is written; it can be taken back while its period is open.
      </p>
      <ul className="border-hair max-h-72 overflow-auto border-t">
        {free.map((row) => (
          <li key={row.key} className="border-hair border-b">
            <label className="flex min-h-8 items-center gap-3 px-1">
              <input
                type="checkbox"
                className="min-h-0"
                checked={wanted.includes(row)}
                onChange={(event) => {
                  const next = new Set(off);
                  if (event.target.checked) next.delete(row.entry);
                  else next.add(row.entry);
                  setOff(next);
                }}
              />
              <span className="w-16">{row.words}</span>
              <span className="font-mono text-[13px]">{row.reference}</span>
              <span className="ml-auto">
                {row.open} {row.currency}
              </span>
            </label>
          </li>
        ))}
        {free.length === 0 && <li className="text-faint p-2">Nothing of this vendor is open and free.</li>}
      </ul>
    </DeedDialog>
  );
}
