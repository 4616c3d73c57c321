import { useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { api, call, type Schemas } from "../api/client";
import { Marks } from "../marks/Marks";
import { TrailFold } from "../audit/TrailOf";
import { Download } from "../parts/Download";
import { Face } from "../parts/Face";
import { useRest } from "../parts/useRest";
import type { Line } from "./lines";
import type { Batch, Deeds, Edits } from "./draftDeeds";
import { useLooks } from "./useLooks";
import { Decide } from "./ClaimDecisions";
import { Approval } from "./BatchApproval";
import { Changes } from "./BatchChanges";

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
              className="text-faint data-[state=active]:text-ink data-[state=active]:border-harbour -mb-px min-h-8 border-b-2 border-transparent px-0.5 text-note data-[state=active]:font-bold"
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
        <p className="text-faint">Move the cursor onto a line: its payment appears here.</p>
      )}
      {line && slip.data && (
        <>
          <h2 className="font-semibold">{slip.data.title}</h2>
          {notes.map((one) => (
            <p key={one.claim} className="callout">
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
