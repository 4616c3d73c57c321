import { useRef } from "react";
import { useSession } from "../frame/session";
import { Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { shortDate } from "../parts/dates";
import { BesideEntry } from "./BesideEntry";
import { EnteredNow } from "./EnteredNow";
import { InvoiceHead } from "./InvoiceHead";
import { InvoiceLines } from "./InvoiceLines";
import { useCorrecting, type Correcting } from "./useCorrecting";
import { useInvoiceEntry } from "./useInvoiceEntry";
import { WhatWasWrong } from "./WhatWasWrong";

/** One invoice or credit by hand: Tab goes on, Enter enters, Ctrl D repeats what stands above. */
export function EnterInvoice() {
  const correcting = useCorrecting();
  if (correcting?.error) return <p className="callout-wrong m-4">{correcting.error.message}</p>;
  // what stands on the wrong one is what is typed first
  if (correcting && !correcting.given) return null;
  return <EntryForm key={correcting?.id} correcting={correcting} />;
}

function EntryForm({ correcting }: { correcting?: Correcting }) {
  const session = useSession();
  const form = useRef<HTMLFormElement>(null);
  const entry = useInvoiceEntry(form, correcting);
  const { kind, head, lines, known, chosen, preview, amounts, entered, refused, today } = entry;
  const { setHead, setLine, addLine, submit, repeat } = entry;
  return (
    <Station
      title="Enter an invoice"
      sentence={
        <>
          {correcting ? (
            <>
              Correct <b>{correcting.page?.reference}</b>: enter anew
            </>
          ) : (
            "Enter"
          )}{" "}
          {kind === "INVOICE" ? "an invoice" : "a credit"}
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
          {correcting && <WhatWasWrong correcting={correcting} />}
          <InvoiceHead entry={entry} />
          <InvoiceLines
            lines={lines}
            accounts={known}
            atFault={Boolean(refused?.fields.lines)}
            onLine={setLine}
            onFilled={addLine}
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
                preview.data &&
                !preview.isPlaceholderData && (
                  <>
                    Total <b>{preview.data.total}</b> {preview.data.currency}
                  </>
                )
              )}
            </span>
            <Button type="submit" look="deed" disabled={!session.roles.includes("CLERK")}>
              {correcting ? "Correct it" : "Enter it"}
            </Button>
          </div>
          {refused && (
            <p role="alert" className="callout-wrong">
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
              currency={preview.data?.currency}
              date={head.date || today}
              amount={
                preview.data && !preview.isPlaceholderData && amounts.length > 0 ? preview.data.total : ""
              }
            />
          )}
          <EnteredNow entered={entered} />
        </>
      }
    />
  );
}
