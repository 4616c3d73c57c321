import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, call } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { clock, longDate, shortDate } from "../parts/dates";
import { Dialog } from "../parts/Dialog";
import { Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import { DayWord } from "../parts/Word";
import { Named } from "./Reported";

/** When was I paid: what a vendor was paid in a period, on one sheet to print or to mail. */
export function PaidToPage() {
  const vendor = Number(useParams().id);
  const { today, roles } = useSession();
  const [values, change] = useAddress();
  const [asking, setAsking] = useState(false);
  // a quarter back, where nothing else is asked
  const to = values.to ?? today;
  const from = values.from;
  const known = useQuery({
    queryKey: ["vendor", vendor],
    queryFn: () => call(api.GET("/api/vendors/{id}", { params: { path: { id: vendor } } })),
  });
  const name = known.data?.name ?? "this vendor";
  const sends = roles.includes("CLERK") || roles.includes("CONTROLLER");
  return (
    <>
      <Named
        name="paid-to"
        asked={{ vendor, from, to }}
        back={{ to: `/vendors/${vendor}`, words: "Back to the vendor" }}
        empty="Nothing was paid to this vendor in these days. Choose an earlier first day."
        sentence={
          <>
            What <b>{name}</b> was paid from{" "}
            <DayWord
              name="From"
              text={from ? longDate(from) : "three months back"}
              value={from ?? ""}
              onChange={(day) => change({ from: day })}
            />{" "}
            to <DayWord name="To" text={longDate(to)} value={to} onChange={(day) => change({ to: day })} />.
          </>
        }
        deeds={sends && <Button onClick={() => setAsking(true)}>Send it by mail…</Button>}
      />
      <Dialog open={asking} onClose={() => setAsking(false)} title={`Send ${name} what it was paid`}>
        <Send vendor={vendor} from={from} to={to} onClose={() => setAsking(false)} />
      </Dialog>
    </>
  );
}

function Send({
  vendor,
  from,
  to,
  onClose,
}: {
  vendor: number;
  from: string | undefined;
  to: string;
  onClose: () => void;
}) {
  const before = useQuery({
    queryKey: ["vendor-paid", vendor],
    queryFn: () => call(api.GET("/api/vendors/{id}/paid", { params: { path: { id: vendor } } })),
  });
  if (before.error) return <p className="callout-wrong">{before.error.message}</p>;
  if (!before.data) return <p className="text-faint">…</p>;
  return (
    <>
      <SendForm vendor={vendor} from={from} to={to} address={before.data.address} onClose={onClose} />
      {before.data.sent.length > 0 && (
        <div className="mt-4">
          <h3 className="text-faint text-note font-semibold">Sent before</h3>
          {before.data.sent.slice(0, 5).map((mail) => (
            <p key={mail.id} className="border-hair flex justify-between gap-3 border-t py-1 text-note">
              <span className={mail.inTrouble ? "text-rust" : ""}>
                {mail.address}: {mail.stateWords}
                {mail.trouble && `: ${mail.trouble}`}
              </span>
              <span className="text-faint">
                {shortDate(mail.madeAt.slice(0, 10))}, {clock(mail.madeAt)}
              </span>
            </p>
          ))}
        </div>
      )}
    </>
  );
}

function SendForm({
  vendor,
  from,
  to,
  address,
  onClose,
}: {
  vendor: number;
  from: string | undefined;
  to: string;
  address: string;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const form = useKeptForm(
    `paid sheet ${vendor}`,
    { address },
    (typed) =>
      call(
        api.POST("/api/vendors/{id}/paid/mail", {
          params: { path: { id: vendor } },
          body: { from, to, address: typed.address },
        }),
      ),
    {
      done: async () => {
        await queries.invalidateQueries();
        onClose();
      },
      said: (_, typed) => `The sheet waits to be sent to ${typed.address.trim()}.`,
    },
  );
  return (
    <Form form={form} label="Sheet by mail" deed="Send it" onClose={onClose}>
      <p>
        The sheet as a PDF, {from ? `from ${longDate(from)}` : "three months back"} to {longDate(to)}. The
        address kept for the vendor does not change.
      </p>
      <Entry name="address" label="To" inputMode="email" autoFocus />
    </Form>
  );
}
