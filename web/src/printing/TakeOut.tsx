import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { DeedDialog } from "../parts/DeedDialog";
import type { useQueueQuestion } from "./useQueueQuestion";

/** What is taken out: payments by claim, with words for each, and whether any of them has a number. */
export type Out = { claims: number[]; words: string[]; numbered: boolean };

/** Takes payments out of a batch until they are posted; says what becomes of a number and its paper. */
export function TakeOut({
  batch,
  out,
  onClose,
  onDone,
  whenItIsOver,
}: {
  batch: number;
  out: Out | undefined;
  onClose: () => void;
  onDone: (next: Schemas["PrintingView"]) => Promise<void>;
  whenItIsOver: ReturnType<typeof useQueueQuestion>["whenItIsOver"];
}) {
  const [spoiled, setSpoiled] = useState(true);
  const many = (out?.claims.length ?? 0) !== 1;
  return (
    <DeedDialog
      open={out !== undefined}
      onClose={onClose}
      title={many ? `Take ${out?.claims.length} payments out` : `Take out the payment to ${out?.words[0]}`}
      deed={many ? "Take them out" : "Take it out"}
      grave
      reason="Why, as the register and the trail keep it"
      run={async (why) => {
        await onDone(
          await whenItIsOver((callBack) =>
            call(
              api.POST("/api/batches/{id}/take-out-payments", {
                params: { path: { id: batch } },
                body: { claims: out?.claims ?? [], spoiled, why, callBack },
              }),
            ),
          ),
        );
      }}
    >
      <p className="mb-2">
        {many ? "Their invoices come" : "Its invoices come"} free for another batch; the other payments go on
        as they are.
      </p>
      {many && <p className="text-faint mb-2 text-note">{out?.words.join(", ")}</p>}
      {out?.numbered && (
        <fieldset className="flex flex-col gap-1">
          <legend className="text-faint">The paper of the number</legend>
          {(
            [
              [true, "it is printed and was destroyed: the number is spoiled"],
              [false, "it stayed blank or is lost: the number is unaccounted"],
            ] as const
          ).map(([value, words]) => (
            <label key={words} className="flex items-center gap-2">
              <input
                type="radio"
                name="paper"
                className="min-h-0"
                checked={spoiled === value}
                onChange={() => setSpoiled(value)}
              />
              {words}
            </label>
          ))}
        </fieldset>
      )}
    </DeedDialog>
  );
}

/** Gives up the numbers of sheets that stayed blank; their payments wait for new ones. */
export function ReleaseBlanks({
  batch,
  documents,
  onClose,
  onDone,
}: {
  batch: number;
  documents: number[] | undefined;
  onClose: () => void;
  onDone: (next: Schemas["PrintingView"]) => Promise<void>;
}) {
  const one = documents?.length === 1;
  return (
    <DeedDialog
      open={documents !== undefined}
      onClose={onClose}
      title={
        one ? "Give up the number of a blank sheet" : `Give up ${documents?.length} numbers of blank sheets`
      }
      deed={one ? "Give up the number" : "Give up the numbers"}
      grave
      reason="Where the paper is, as the register keeps it"
      run={async (why) => {
        await onDone(
          await call(
            api.POST("/api/batches/{id}/release-blanks", {
              params: { path: { id: batch } },
              body: { documents: documents ?? [], why },
            }),
          ),
        );
      }}
    >
      <p>
        {one ? "It is" : "They are"} kept in the register as unaccounted, and{" "}
        {one ? "its payment waits for a new number" : "their payments wait for new numbers"}.
      </p>
    </DeedDialog>
  );
}
