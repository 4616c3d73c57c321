import { Popover } from "radix-ui";
import { useRef, useState } from "react";
import { asRefused } from "./useDeed";

/** Where one goes on after an amount: a row down, into the next row's amount, back with nothing changed, or elsewhere. */
export type GoneOn = "down" | "next" | "back" | "away";

/**
 * An amount typed in its cell of a list: Enter keeps it and goes down, Tab goes into the next one, Esc gives back what stood
 * there. What is refused stays in the cell, with the reason beside it.
 */
export function AmountCell({
  label,
  value,
  digit,
  keep,
  onGone,
}: {
  label: string;
  /** What stands there now. */
  value: string;
  /** The digit that began it; empty where it was opened otherwise. */
  digit: string;
  /** Keeps what was typed, empty for all of it; throws what was refused. */
  keep: (typed: string) => Promise<void>;
  onGone: (how: GoneOn) => void;
}) {
  const [typed, setTyped] = useState(digit || value);
  const [finding, setFinding] = useState<string>();
  const [busy, setBusy] = useState(false);
  const gone = useRef(false);
  const go = (how: GoneOn, input: HTMLElement) => {
    const grid = input.closest<HTMLElement>("[role=grid]");
    gone.current = true;
    onGone(how);
    if (how === "down" || how === "back") grid?.focus();
  };
  const done = async (how: GoneOn, input: HTMLInputElement) => {
    if (busy) return;
    if (how === "back" || typed.trim() === value) return go(how, input);
    setBusy(true);
    try {
      await keep(typed.trim());
      go(how, input);
    } catch (error) {
      setFinding(asRefused(error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Popover.Root open={finding !== undefined}>
      <Popover.Anchor asChild>
        <input
          aria-label={label}
          aria-invalid={finding ? true : undefined}
          inputMode="decimal"
          autoComplete="off"
          autoFocus
          className={`min-h-0 w-full py-0 text-right ${finding ? "border-rust" : ""}`}
          style={{ height: 26 }}
          value={typed}
          readOnly={busy}
          onFocus={(event) => digit === "" && event.target.select()}
          onChange={(event) => {
            setTyped(event.target.value);
            setFinding(undefined);
          }}
          // the keys are the cell's, not the list's
          onKeyDown={(event) => {
            event.stopPropagation();
            const how = ({ Enter: "down", Escape: "back", Tab: "next" } as const)[event.key];
            if (!how || (how === "next" && event.shiftKey)) return;
            event.preventDefault();
            void done(how, event.currentTarget);
          }}
          onClick={(event) => event.stopPropagation()}
          onDoubleClick={(event) => event.stopPropagation()}
          onBlur={(event) => {
            // whoever goes elsewhere has typed what they meant; what is refused stays here
            if (!gone.current && finding === undefined) void done("away", event.currentTarget);
          }}
        />
      </Popover.Anchor>
      <Popover.Portal>
        <Popover.Content
          role="alert"
          align="end"
          side="bottom"
          className="bg-sheet border-rust text-rust z-20 max-w-md border p-2"
          onOpenAutoFocus={(event) => event.preventDefault()}
        >
          {finding} <span className="text-faint">Esc gives back what stood there.</span>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
