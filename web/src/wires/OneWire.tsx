import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { AdvicePart } from "../mail/AdvicePart";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { DayEntry, Entry, Form } from "../parts/Form";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";
import { UndoPart } from "../voiding/UndoPart";
import type { WireLine } from "./useWires";

/** One wire: what is typed at the bank's site, and what the bank said of it. */
export function OneWire({
  line,
  currency,
  clerk,
  onDone,
}: {
  line: WireLine;
  currency: string;
  clerk: boolean;
  onDone: () => void;
}) {
  const [correcting, setCorrecting] = useState(false);
  const { payment, step } = line;
  return (
    <section aria-label="Wire" className="flex flex-col gap-3">
      <h2 className="text-base font-bold">
        {line.called && <span className="font-mono">{line.called}</span>} {line.payee}
      </h2>
      <p>
        <b>{line.amount}</b> {currency} to {line.bank}.
      </p>
      {step === "WAITS" && <p className="text-faint">It is not on the list yet.</p>}
      {line.why && <p className="callout text-brass">{line.why}</p>}
      {line.bankReference && (
        <p>
          The bank sent it{line.sentOn && ` on ${longDate(line.sentOn)}`} as{" "}
          <span className="font-mono">{line.bankReference}</span>
          {line.fee && ` and asked ${line.fee} ${currency} for it`}; written down by {line.confirmedBy}.
        </p>
      )}
      {payment && step === "LISTED" && clerk && <ToOrder payment={payment} />}
      {payment && clerk && (step === "LISTED" || correcting) && (
        <Confirm
          key={`${payment} ${line.bankReference}`}
          payment={payment}
          line={line}
          onDone={() => {
            setCorrecting(false);
            onDone();
          }}
        />
      )}
      {step === "CONFIRMED" && clerk && !correcting && (
        <Button className="self-start" onClick={() => setCorrecting(true)}>
          Correct what the bank said…
        </Button>
      )}
      {payment && step === "POSTED" && <AdvicePart payment={payment} name={line.bankReference} />}
      {payment && step === "POSTED" && clerk && (
        <UndoPart key={payment} payment={payment} name={line.bankReference} />
      )}
    </section>
  );
}

/** What is typed at the bank's site; opened by hand, because it shows a whole account number, and the trail keeps that. */
function ToOrder({ payment }: { payment: number }) {
  const [fields, setFields] = useState<Schemas["WireField"][]>();
  const [copied, setCopied] = useState<string>();
  const open = useDeed(() => call(api.POST("/api/wires/{payment}/open", { params: { path: { payment } } })), {
    done: (answer) => setFields(answer),
  });
  if (!fields)
    return (
      <div>
        <Button disabled={open.busy} onClick={() => void open.must().catch(() => undefined)}>
          Show what is typed at the bank
        </Button>
        <Refusal deed={open} />
      </div>
    );
  const copy = async (field: Schemas["WireField"]) => {
    try {
      await navigator.clipboard.writeText(field.value);
      setCopied(field.label);
    } catch {
      setCopied(undefined);
    }
  };
  return (
    <dl className="border-hair bg-sheet border">
      {fields.map((field) => (
        <div
          key={field.label}
          className="border-hair flex items-start gap-2 border-t px-3 py-1.5 first:border-t-0"
        >
          <dt className="text-faint w-28 shrink-0 text-note">{field.label}</dt>
          <dd className="flex min-w-0 flex-1 items-start gap-2">
            <span className="min-w-0 flex-1 font-mono break-words select-all">{field.value}</span>
            <button
              type="button"
              className="go min-h-6 shrink-0 text-note"
              aria-label={`Copy ${field.label}`}
              onClick={() => void copy(field)}
            >
              {copied === field.label ? "Copied" : "Copy"}
            </button>
          </dd>
        </div>
      ))}
    </dl>
  );
}

function Confirm({ payment, line, onDone }: { payment: number; line: WireLine; onDone: () => void }) {
  const { today } = useSession();
  const queries = useQueryClient();
  const form = useKeptForm(
    `wire ${payment} ${line.bankReference}`,
    { bankReference: line.bankReference, fee: line.fee, sentOn: line.sentOn ?? today },
    (typed) => call(api.POST("/api/wires/{payment}/confirm", { params: { path: { payment } }, body: typed })),
    {
      done: async () => {
        await queries.invalidateQueries();
        onDone();
      },
      said: (_, typed) => `${line.called} was sent as ${typed.bankReference.trim().toUpperCase()}.`,
    },
  );
  return (
    <Form form={form} label="What the bank said" deed="The bank sent it" className="gap-3">
      <h3 className="text-faint text-note font-semibold">Once it is ordered: what the bank said</h3>
      <Entry name="bankReference" label="Its reference" look="font-mono" maxLength={60} />
      <div className="grid grid-cols-2 gap-3">
        <Entry name="fee" label="Its fee; empty: none" inputMode="decimal" />
        <DayEntry name="sentOn" label="Sent on" />
      </div>
    </Form>
  );
}
