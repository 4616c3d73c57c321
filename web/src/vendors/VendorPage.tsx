import { useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useMemo, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { TrailFold } from "../audit/TrailOf";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Download } from "../parts/Download";
import { Grid } from "../parts/Grid";
import { ChoiceWord } from "../parts/Word";
import { About } from "./VendorAbout";
import { Hold } from "./VendorHold";
import { MergeVendor } from "./MergeVendor";
import { columnsOf } from "./accountColumns";
import { isDocument, VendorBar, type Asking } from "./VendorBar";
import { OffsetCredits } from "./OffsetCredits";
import { ProposeChange } from "./ProposeChange";

export type Show = "ALL" | "OPEN" | "RESERVED" | "SETTLED" | "CREDITS" | "PAYMENTS";
export type Row = Schemas["AccountRow"];
export type Vendor = Schemas["VendorView"];

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
  const navigate = useNavigate();
  const [selected, setSelected] = useState<Set<string>>(new Set());
  const [asking, setAsking] = useState<Asking>();
  const [proposing, setProposing] = useState<Schemas["AddressView"] | "further">();
  const show = (values.show ?? "ALL") as Show;
  const account = useQuery({
    queryKey: ["vendor-account", vendor.id, show],
    queryFn: () =>
      call(api.GET("/api/vendors/{id}/account", { params: { path: { id: vendor.id }, query: { show } } })),
  });
  const items = useMemo(() => account.data?.map((row) => ({ key: row.key, row })) ?? [], [account.data]);
  const at = account.data?.find((row) => row.key === values.at);
  const clerk = session.roles.includes("CLERK") && !vendor.mergedInto;
  const holder = clerk || session.roles.includes("CONTROLLER");
  return (
    <Station
      title={vendor.name}
      sentence={
        <>
          <b>{vendor.name}</b>, <span className="font-mono text-base">{vendor.number}</span>:{" "}
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
          {vendor.paidAhead.length > 0 && <Figure value={money(vendor.paidAhead)}>paid ahead</Figure>}
          {vendor.mergedInto && (
            <span className="text-brass">
              became{" "}
              <Link className="go font-bold" to={`/vendors/${vendor.mergedInto.id}`}>
                {vendor.mergedInto.name}
              </Link>
            </span>
          )}
          {vendor.held && (
            <span className="text-rust">
              <b>Held:</b> {vendor.held}
            </span>
          )}
          <Link className="go ml-auto" to={`/vendors/${vendor.id}/paid`}>
            What it was paid
          </Link>
          <Link className="go" to={`/due?vendors=${vendor.id}`}>
            What is due
          </Link>
          <Download path={`/api/vendors/${vendor.id}/account/csv`} params={{ show }} />
        </>
      }
      list={
        <Loaded query={account}>
          {() => (
            <Grid
              list={`vendor-${show === "ALL" ? "account" : show === "PAYMENTS" ? "payments" : "entries"}`}
              label={SHOWN[show]}
              items={items}
              columns={columnsOf(show, account.data ?? [])}
              cursor={values.at}
              onCursor={(key) => change({ at: key })}
              selected={show === "ALL" || show === "PAYMENTS" ? undefined : selected}
              onSelect={show === "ALL" || show === "PAYMENTS" ? undefined : setSelected}
              onEnter={(key) => {
                const row = account.data?.find((one) => one.key === key);
                if (row && isDocument(row)) navigate(`/invoices/${row.entry}`);
              }}
              dim={(row) => row.settled}
              empty="Nothing here. Choose something else in the sentence above."
            />
          )}
        </Loaded>
      }
      bar={<VendorBar vendor={vendor} at={at} clerk={clerk} holder={holder} onAsk={setAsking} />}
      slip={
        <>
          <About vendor={vendor} clerk={clerk} onPropose={holder ? setProposing : undefined} />
          {at && isDocument(at) && (
            <div className="mt-4 flex flex-col gap-2">
              <Link className="go" to={`/invoices/${at.entry}`}>
                All of {at.words} {at.reference}
              </Link>
              <TrailFold key={at.key} subject={`invoice ${at.entry}`} name={at.reference} />
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
              onClose={() => setProposing(undefined)}
            />
          )}
          <MergeVendor vendor={vendor} open={asking === "merge"} onClose={() => setAsking(undefined)} />
          <OffsetCredits
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
