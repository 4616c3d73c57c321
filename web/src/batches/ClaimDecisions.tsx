import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { dayMonth } from "../parts/dates";
import { useKept } from "../parts/useKept";
import type { Batch, Deeds, Edits } from "./draftDeeds";
import { MovePayment } from "./MovePayment";

/** Where the payment goes, what its stub says, and which credits reduce it. */
export function Decide({
  batch,
  claim,
  editable,
  focus,
  edits,
  deeds,
  onFocused,
}: {
  batch: Batch;
  claim: Schemas["ClaimView"];
  editable: boolean;
  focus: string | undefined;
  edits: Edits;
  deeds: Deeds;
  /** Called once the field the key asked for has the focus, so that a later step does not pull it back. */
  onFocused: () => void;
}) {
  const edit = edits.run;
  const [note, setNote, forget] = useKept(`stub note ${batch.id} ${claim.id}`, claim.stubNote);
  const noteField = useRef<HTMLInputElement>(null);
  const credits = useRef<HTMLFieldSetElement>(null);
  const choices = useQuery({
    queryKey: ["claim-choices", batch.id, batch.version, claim.id],
    queryFn: () =>
      call(
        api.GET("/api/batches/{id}/claims/{claim}/choices", {
          params: { path: { id: batch.id, claim: claim.id } },
        }),
      ),
  });
  const listed = choices.data !== undefined;
  useEffect(() => {
    const field = focus === "note" ? noteField.current : credits.current?.querySelector("input");
    if (!focus || !field) return;
    field.focus();
    onFocused();
  }, [focus, listed, onFocused]);
  const used = choices.data?.credits.filter((credit) => credit.used).map((credit) => credit.id) ?? [];
  return (
    <div className="flex flex-col gap-4">
      <h2 className="font-semibold">
        <Link className="go" to={`/vendors/${claim.vendor}`}>
          {claim.payee}
        </Link>
        , {claim.amount}
      </h2>
      <fieldset disabled={!editable} className="flex flex-col gap-1">
        <legend className="text-faint mb-1 text-note font-semibold">Goes to</legend>
        {choices.data?.addresses.map((address) => (
          <label key={address.id} className="flex min-h-6 items-start gap-2">
            <input
              type="radio"
              name="remit-to"
              className="mt-1 min-h-0"
              checked={address.id === claim.remitTo}
              onChange={() =>
                void edit((v) => deeds.sendTo(v, claim.id, address.id), "Goes to that address.")
              }
            />
            {address.address}
          </label>
        ))}
      </fieldset>
      <form
        className="flex flex-col gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          void edit(
            (v) => deeds.note(v, claim.id, note),
            note.trim() ? "The stub says so." : "No stub note.",
          ).then((done) => done && forget());
        }}
      >
        <label className="flex flex-col gap-1">
          <span className="text-faint text-note font-semibold">Stub note, at most 120 characters</span>
          <input
            value={note}
            disabled={!editable}
            ref={noteField}
            onChange={(event) => setNote(event.target.value)}
          />
        </label>
        <Button type="submit" className="self-start" disabled={!editable || note === claim.stubNote}>
          Keep the note
        </Button>
      </form>
      <fieldset ref={credits} disabled={!editable} className="flex flex-col gap-1">
        <legend className="text-faint mb-1 text-note font-semibold">Credits, oldest first</legend>
        {choices.data?.credits.map((credit) => (
          <label key={credit.id} className="flex min-h-6 items-center gap-2">
            <input
              type="checkbox"
              className="min-h-0"
              checked={credit.used}
              onChange={(event) =>
                void edit(
                  (v) =>
                    deeds.useCredits(
                      v,
                      claim.id,
                      event.target.checked ? [...used, credit.id] : used.filter((id) => id !== credit.id),
                    ),
                  event.target.checked
                    ? `Credit ${credit.reference} is used.`
                    : `Credit ${credit.reference} released.`,
                )
              }
            />
            <span className="font-mono text-note">{credit.reference}</span>
            <span className="text-faint text-note">{dayMonth(credit.date)}</span>
            <span className="ml-auto">{credit.open}</span>
          </label>
        ))}
        {choices.data?.credits.length === 0 && (
          <p className="text-faint">No open credit of this vendor and address can be used.</p>
        )}
      </fieldset>
      {editable && batch.state === "DRAFT" && <MovePayment key={claim.id} batch={batch} claim={claim} />}
    </div>
  );
}
