import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call } from "../api/client";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import { Dialog } from "../parts/Dialog";
import { Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";

/** How the payee of a payment learns what it is for, and what became of it. */
export function AdvicePart({ payment: id, name }: { payment: number; name: string }) {
  const [asking, setAsking] = useState(false);
  const advice = useQuery({
    queryKey: ["advice", id],
    queryFn: () => call(api.GET("/api/payments/{id}/advice", { params: { path: { id } } })),
  });
  if (advice.error) return <p className="text-rust">{advice.error.message}</p>;
  if (!advice.data) return null;
  const { words, mails, maySend, address } = advice.data;
  return (
    <section>
      <h3 className="text-faint mb-1 text-note font-semibold">Remittance advice</h3>
      <p>
        goes {words}.{" "}
        <a className="go" href={`/api/payments/${id}/advice/pdf`} target="_blank" rel="noreferrer">
          All lines as PDF
        </a>
      </p>
      {mails.map((mail) => (
        <p key={mail.id} className="border-hair flex justify-between gap-3 border-t py-1 text-note">
          <span className={mail.trouble && mail.state !== "SENT" ? "text-rust" : ""}>
            {mail.address || "nobody"}: {mail.stateWords}
            {mail.trouble && mail.state !== "SENT" && `: ${mail.trouble}`}
          </span>
          <span className="text-faint text-right">{clock(mail.sentAt ?? mail.madeAt)}</span>
        </p>
      ))}
      {maySend && (
        <Button look="bare" className="mt-1" onClick={() => setAsking(true)}>
          {mails.length > 0 ? "Send it again by mail…" : "Send it by mail…"}
        </Button>
      )}
      <Dialog open={asking} onClose={() => setAsking(false)} title={`Send the advice of ${name} by mail`}>
        <Send key={mails.length} id={id} address={address} onClose={() => setAsking(false)} />
      </Dialog>
    </section>
  );
}

function Send({ id, address, onClose }: { id: number; address: string; onClose: () => void }) {
  const queries = useQueryClient();
  const form = useKeptForm(
    `advice ${id}`,
    { address },
    (typed) =>
      call(
        api.POST("/api/payments/{id}/advice/mail", {
          params: { path: { id } },
          body: { address: typed.address },
        }),
      ),
    {
      done: async () => {
        await queries.invalidateQueries({ queryKey: ["advice", id] });
        await queries.invalidateQueries({ queryKey: ["mail"] });
        onClose();
      },
      said: (_, typed) => `The list waits to be sent to ${typed.address.trim()}.`,
    },
  );
  return (
    <Form form={form} label="Advice by mail" deed="Send it" onClose={onClose}>
      <p>
        All lines as a PDF, as they were when the payment was made. The address kept for the vendor does not
        change.
      </p>
      <Entry name="address" label="To" inputMode="email" autoFocus />
    </Form>
  );
}
