import { Dialog } from "radix-ui";
import { useState } from "react";
import { setSingleKeys, singleKeys } from "../parts/singleKeys";

const KEYS = [
  ["↑ ↓ Page Home End", "move the cursor"],
  ["Shift + arrows", "select a range; Ctrl + click adds one; Ctrl A all"],
  ["Space", "set all selected rows to the new state of the cursor's row"],
  ["Enter", "open, or the amount in a draft"],
  ["a digit", "type an amount to pay (drafts)"],
  ["+ −", "take the whole claim in, or leave it (Due)"],
  ["o s j n c", "own check, split, join, stub note, credits (drafts)"],
  ["Ctrl Z, Ctrl Y", "undo, do again (drafts)"],
  ["Esc", "back out"],
  ["F6", "between list and slip"],
  ["Ctrl K", "find a vendor, invoice, check or batch"],
  ["?", "these keys"],
];

/** The keys, in one place. */
export function Keys({ open, onClose }: { open: boolean; onClose: () => void }) {
  const [on, setOn] = useState(singleKeys);
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="bg-scrim fixed inset-0 z-30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="bg-sheet border-ink fixed top-24 left-1/2 z-40 w-[94vw] max-w-lg -translate-x-1/2 border p-5"
        >
          <Dialog.Title className="mb-3 text-lg font-bold">Keys</Dialog.Title>
          <dl className="grid grid-cols-[160px_1fr] gap-y-1.5">
            {KEYS.map(([key, what]) => (
              <div key={key} className="contents">
                <dt className="font-mono text-note">{key}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
          <p className="text-faint mt-3">
            Single keys act only inside a list; the menu behind your name shows these keys, too.
          </p>
          <label className="mt-2 flex items-center gap-2">
            <input
              type="checkbox"
              className="min-h-0"
              checked={on}
              onChange={(event) => {
                setSingleKeys(event.target.checked);
                setOn(event.target.checked);
              }}
            />
            Letters, digits, +, − and ? are commands
          </label>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
