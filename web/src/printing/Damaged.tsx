import { DeedDialog } from "../parts/DeedDialog";

/** Why paper cannot be used, and what becomes of its number: used up, or printed once more where the series allows it. */
export function Damaged({
  sheets,
  said,
  onClose,
  run,
}: {
  sheets: (number | undefined)[];
  said: "SPOILED" | "AGAIN" | undefined;
  onClose: () => void;
  run: (why: string) => Promise<void>;
}) {
  const again = said === "AGAIN";
  const one = sheets.length === 1;
  const its = one ? "its own number" : "their own numbers";
  return (
    <DeedDialog
      open={said !== undefined}
      onClose={onClose}
      title={`${again ? "Print again" : "Spoiled"}: ${sheets.join(", ")}`}
      deed={again ? `Print on ${its} again` : `Use up ${one ? "this number" : "these numbers"}`}
      grave={!again}
      reason="What happened to the paper"
      run={run}
    >
      <p>
        {again
          ? "Destroy the damaged paper: the same number goes to the printer once more. The register counts it, with who and why."
          : "The number is kept in the register as spoiled, with no payment behind it. The payment waits for a new number."}
      </p>
    </DeedDialog>
  );
}
