import { useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useEffect, useRef } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { Marks } from "../marks/Marks";
import { RouteSteps } from "../approval/RouteSteps";
import { TrailFold } from "../audit/TrailOf";
import { Button } from "../parts/Button";
import { clock, dayMonth } from "../parts/dates";
import { Download } from "../parts/Download";
import { Face } from "../parts/Face";
import { useKept } from "../parts/useKept";
import { useRest } from "../parts/useRest";
import type { Line } from "./lines";
import type { Batch, Deeds, Edits } from "./draftDeeds";
import { useLooks } from "./useLooks";

/** The payment under the cursor, what can be decided about it, and the life of the draft. */
export function BatchSlip({
  batch,
  claim,
  line,
  editable,
  panel,
  focus,
  edits,
  deeds,
  onPanel,
}: {
  batch: Batch;
  claim: Schemas["ClaimView"] | undefined;
  line: Line | undefined;
  editable: boolean;
  panel: string;
  focus: string | undefined;
  edits: Edits;
  deeds: Deeds;
  onPanel: (panel: string) => void;
}) {
  const looks = useLooks(batch);
  const tabs: [string, string][] = [
    ["payment", "Payment"],
    ["claim", "Decide"],
    ["approval", "Approval"],
    ["changes", `Changes${batch.edits.length > 0 ? ` (${batch.edits.length})` : ""}`],
  ];
  const rested = useRest(claim?.id);
  return (
    <Tabs.Root value={panel} onValueChange={onPanel}>
      <div className="border-hair mb-3 flex items-center border-b">
        <Tabs.List aria-label="Beside the list" className="flex gap-4">
          {tabs.map(([key, title]) => (
            <Tabs.Trigger
              key={key}
              value={key}
              className="text-faint data-[state=active]:text-ink data-[state=active]:border-harbour -mb-px min-h-8 border-b-2 border-transparent px-0.5 text-[13px] data-[state=active]:font-bold"
            >
              {title}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <span className="ml-auto">
          <Download path={`/api/batches/${batch.id}/csv`} />
        </span>
      </div>
      <Tabs.Content value="payment">
        <Payment batch={batch} claim={rested} line={line} looks={looks.view} answer={looks.answer} />
      </Tabs.Content>
      <Tabs.Content value="approval">
        <Approval batch={batch} looks={looks.view} />
      </Tabs.Content>
      <Tabs.Content value="claim">
        {claim ? (
          <Decide
            key={claim.id}
            batch={batch}
            claim={claim}
            editable={editable}
            focus={focus}
            edits={edits}
            deeds={deeds}
            onFocused={() => onPanel("claim")}
          />
        ) : (
          <p className="text-faint">
            Move the cursor onto a line: what can be decided about its payment stands here.
          </p>
        )}
      </Tabs.Content>
      <Tabs.Content value="changes">
        <Changes batch={batch} />
        <div className="mt-4">
          <TrailFold subject={`batch ${batch.id}`} name={batch.name} />
        </div>
      </Tabs.Content>
    </Tabs.Root>
  );
}

function Payment({
  batch,
  claim,
  line,
  looks,
  answer,
}: {
  batch: Batch;
  claim: number | undefined;
  line: Line | undefined;
  looks: Schemas["LooksView"] | undefined;
  answer: ((key: string, note: string) => Promise<boolean>) | undefined;
}) {
  const marks = looks?.marks.find((one) => one.claim === claim)?.marks ?? [];
  const notes = looks?.notes.filter((one) => one.claim === claim) ?? [];
  const slip = useQuery({
    queryKey: ["claim-slip", batch.id, batch.version, claim],
    enabled: claim !== undefined,
    queryFn: () =>
      call(
        api.GET("/api/slips/claims/{batch}/{claim}", {
          params: { path: { batch: batch.id, claim: claim! } },
        }),
      ),
  });
  return (
    <div className="flex flex-col gap-4">
      {line === undefined && (
        <p className="text-faint">Move the cursor onto a line: its check appears here.</p>
      )}
      {line && slip.data && (
        <>
          <h2 className="font-semibold">{slip.data.title}</h2>
          {notes.map((one) => (
            <p key={one.claim} className="border-brass border-l-4 pl-3">
              <b>{one.who}:</b> “{one.note}”
            </p>
          ))}
          {marks.length > 0 && <Marks marks={marks} answer={answer} />}
          {slip.data.face && <Face page={slip.data.face} label={`Check to ${line.payee}, not a check`} />}
          <address className="text-faint not-italic">
            {slip.data.address.map((text, i) => (
              <div key={i}>{text}</div>
            ))}
          </address>
        </>
      )}
    </div>
  );
}

/** How far the batch has come on its route, and every answer it ever got. */
function Approval({ batch, looks }: { batch: Batch; looks: Schemas["LooksView"] | undefined }) {
  const route = useQuery({
    queryKey: ["route", batch.id, batch.version],
    staleTime: 0,
    queryFn: () => call(api.GET("/api/batches/{id}/route", { params: { path: { id: batch.id } } })),
  });
  return (
    <div className="flex flex-col gap-4">
      {batch.state === "DRAFT" && (
        <p className="text-faint">If it were sent as it is now, it would take this route:</p>
      )}
      {route.data && <RouteSteps route={route.data} />}
      {batch.approvals.length > 0 && (
        <section>
          <h3 className="text-faint mb-1 text-[13px] font-semibold">Answers</h3>
          <ul>
            {batch.approvals.map((approval, i) => (
              <li key={i} className={approval.counts ? "" : "text-faint"}>
                {approval.who}
                {approval.onBehalfOf && ` for ${approval.onBehalfOf}`}{" "}
                {approval.outcome === "APPROVED" ? "approved" : "sent it back"}, {clock(approval.at)}
                {approval.reason && `: ${approval.reason}`}
                {!approval.counts && approval.outcome === "APPROVED" && " (void: changed afterwards)"}
              </li>
            ))}
          </ul>
        </section>
      )}
      {looks && looks.struck.length > 0 && (
        <section>
          <h3 className="text-faint mb-1 text-[13px] font-semibold">Struck by approvers</h3>
          {looks.struck.map((one, i) => (
            <p key={i}>
              <s>
                {one.payee} {one.amount}
              </s>{" "}
              <span className="text-faint text-[13px]">
                {one.who}, {clock(one.at)}: {one.reason}
              </span>
            </p>
          ))}
        </section>
      )}
    </div>
  );
}

/** Where the payment goes, what its stub says, and which credits reduce it. */
function Decide({
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
        <Link className="text-harbour underline" to={`/vendors/${claim.vendor}`}>
          {claim.payee}
        </Link>
        , {claim.amount}
      </h2>
      <fieldset disabled={!editable} className="flex flex-col gap-1">
        <legend className="text-faint mb-1 text-[13px] font-semibold">Goes to</legend>
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
          <span className="text-faint text-[13px] font-semibold">Stub note, at most 120 characters</span>
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
        <legend className="text-faint mb-1 text-[13px] font-semibold">Credits, oldest first</legend>
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
            <span className="font-mono text-[13px]">{credit.reference}</span>
            <span className="text-faint text-[13px]">{dayMonth(credit.date)}</span>
            <span className="ml-auto">{credit.open}</span>
          </label>
        ))}
        {choices.data?.credits.length === 0 && (
          <p className="text-faint">No open credit of this vendor and address can be used.</p>
        )}
      </fieldset>
    </div>
  );
}

const STATES: Record<string, string> = { UNDONE: "undone", DROPPED: "undone, something else done instead" };

/** What changed since the batch was made, newest first. */
function Changes({ batch }: { batch: Batch }) {
  if (batch.edits.length === 0) return <p className="text-faint">Nothing was changed since it was made.</p>;
  return (
    <ol>
      {batch.edits.map((step) => (
        <li
          key={step.step}
          className={`border-hair border-b py-1 ${step.state === "DONE" ? "" : "text-faint line-through decoration-1"}`}
        >
          <span className="flex justify-between gap-2">
            <span>
              {step.who} {step.what}
            </span>
            <span className="whitespace-nowrap">{step.amount}</span>
          </span>
          <span className="text-faint text-[13px]">
            {clock(step.at)}
            {STATES[step.state] && ` · ${STATES[step.state]}`}
          </span>
        </li>
      ))}
    </ol>
  );
}
