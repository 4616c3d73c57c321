import { DropdownMenu } from "radix-ui";
import { Button } from "../parts/Button";
import type { Batch, Deeds, Edits } from "./draftDeeds";

/** Everything that can be changed of a draft, each with its key. */
export function ChangeMenu({
  batch,
  selected,
  edits,
  deeds,
  onPay,
  onAsk,
}: {
  batch: Batch;
  selected: number[];
  edits: Edits;
  deeds: Deeds;
  onPay: () => void;
  onAsk: (what: "about" | "gather" | "withdraw") => void;
}) {
  const edit = edits.run;
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
    ["Name, note and days…", false, () => onAsk("about")],
    ["Gather again…", !batch.gathered, () => onAsk("gather")],
    ["Release all credits", !batch.credited, () => void edit(deeds.releaseCredits, "Released all credits.")],
    ["Take everything out", batch.claims.length === 0, () => void edit(deeds.clear, "Took everything out.")],
    ["Withdraw the batch…", false, () => onAsk("withdraw")],
  ];
  return (
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
  );
}
