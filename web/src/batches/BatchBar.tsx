import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { AboutBatch } from "./AboutBatch";
import type { Batch, Deeds, Edits } from "./draftDeeds";
import { Questions } from "./BatchQuestions";

/** What can be done with the batch as it is, and with what is selected in it. */
export function BatchBar({
  batch,
  editable,
  selected,
  total,
  edits,
  deeds,
  onAdd,
  onPay,
}: {
  batch: Batch;
  editable: boolean;
  selected: number[];
  total: Schemas["LinesTotal"] | undefined;
  edits: Edits;
  deeds: Deeds;
  onAdd: () => void;
  onPay: () => void;
}) {
  const session = useSession();
  const edit = edits.run;
  const [asking, setAsking] = useState<"send" | "withdraw" | "gather" | "about">();
  const approver = session.roles.includes("APPROVER") || session.roles.includes("CONTROLLER");
  const none = selected.length === 0;
  const item =
    "data-[highlighted]:bg-cursor data-[disabled]:text-faint flex min-h-8 cursor-default items-center gap-6 px-3 outline-none";
  const entries: [string, string, boolean, () => void][] = [
    ["Pay part…", "a digit", none, onPay],
    [
      "Give it its own check",
      "o",
      selected.length !== 1,
      () => void edit((v) => deeds.ownCheck(v, selected[0]!), "It has its own check."),
    ],
    [
      "Split off into a payment of its own",
      "s",
      none,
      () => void edit((v) => deeds.split(v, selected), `${selected.length} split off.`),
    ],
    [
      "Join the payments",
      "j",
      selected.length < 2,
      () => void edit((v) => deeds.join(v, selected), "Joined."),
    ],
    [
      "Sum up on the stub",
      "",
      none,
      () => void edit((v) => deeds.show(v, selected, false), "Summed up on the stub."),
    ],
    [
      "List on the stub",
      "",
      none,
      () => void edit((v) => deeds.show(v, selected, true), "Listed on the stub."),
    ],
  ];
  const whole: [string, boolean, () => void][] = [
    ["Name, note and days…", false, () => setAsking("about")],
    ["Gather again…", !batch.gathered, () => setAsking("gather")],
    ["Release all credits", !batch.credited, () => void edit(deeds.releaseCredits, "Released all credits.")],
    ["Take everything out", batch.claims.length === 0, () => void edit(deeds.clear, "Took everything out.")],
    ["Withdraw the batch…", false, () => setAsking("withdraw")],
  ];
  return (
    <>
      {editable && (
        <>
          <Button onClick={onAdd}>Add invoices…</Button>
          <Button
            disabled={none}
            onClick={() => void edit((v) => deeds.takeOut(v, selected), `Took out ${selected.length}.`)}
          >
            Take out {selected.length > 1 ? selected.length : ""}
          </Button>
          <DropdownMenu.Root>
            <DropdownMenu.Trigger asChild>
              <Button>Change ▾</Button>
            </DropdownMenu.Trigger>
            <DropdownMenu.Portal>
              <DropdownMenu.Content side="top" align="start" className="bg-sheet border-ink z-30 border py-1">
                {entries.map(([words, key, disabled, run]) => (
                  <DropdownMenu.Item key={words} className={item} disabled={disabled} onSelect={run}>
                    {words} <kbd className="text-faint ml-auto">{key}</kbd>
                  </DropdownMenu.Item>
                ))}
                <DropdownMenu.Separator className="border-hair my-1 border-t" />
                {whole.map(([words, disabled, run]) => (
                  <DropdownMenu.Item key={words} className={item} disabled={disabled} onSelect={run}>
                    {words}
                  </DropdownMenu.Item>
                ))}
              </DropdownMenu.Content>
            </DropdownMenu.Portal>
          </DropdownMenu.Root>
          <Button
            disabled={!batch.undo}
            title={batch.undo ? `Undo: ${batch.undo}` : "Nothing to undo"}
            onClick={() => void edit(deeds.undo)}
          >
            Undo
          </Button>
          <Button
            disabled={!batch.redo}
            title={batch.redo ? `Do again: ${batch.redo}` : "Nothing to do again"}
            onClick={() => void edit(deeds.redo)}
          >
            Do again
          </Button>
        </>
      )}
      <span className="text-faint ml-auto text-note" aria-live="polite">
        {total
          ? `${total.count} selected, settles ${total.settles}, pays ${total.pays}`
          : editable && (
              <span className="max-[1400px]:hidden">Space takes out · a digit pays part · ? keys</span>
            )}
      </span>
      {batch.state === "DRAFT" && editable && (
        <Button look="deed" disabled={batch.claims.length === 0} onClick={() => setAsking("send")}>
          Send for approval…
        </Button>
      )}
      {batch.state === "IN_APPROVAL" && approver && (
        <Link
          to={`/approval/${batch.id}`}
          className="bg-harbour text-onharbour inline-flex min-h-8 items-center px-3 font-bold"
        >
          Look and answer
        </Link>
      )}
      {(batch.state === "APPROVED" || batch.state === "NUMBERED") && session.roles.includes("CLERK") && (
        <Link
          to={`/print/${batch.id}`}
          className="bg-harbour text-onharbour inline-flex min-h-8 items-center px-3 font-bold"
        >
          Go to printing
        </Link>
      )}
      {asking === "about" && (
        <AboutBatch batch={batch} edits={edits} deeds={deeds} onClose={() => setAsking(undefined)} />
      )}
      <Questions
        batch={batch}
        asking={asking === "about" ? undefined : asking}
        onClose={() => setAsking(undefined)}
        edits={edits}
        deeds={deeds}
      />
    </>
  );
}
