import type { Deed } from "./useDeed";
import { Button } from "./Button";

/** Why a deed was refused, in the form it came from; what was typed stays, and the form tries again. */
export function Refusal({ deed }: { deed: Pick<Deed<never>, "refused" | "leave"> }) {
  if (!deed.refused) return null;
  return (
    <p role="alert" className="callout-wrong mt-3 flex items-start gap-2">
      <span className="flex-1">{deed.refused.message}</span>
      <Button look="bare" aria-label="Close what was refused" onClick={deed.leave}>
        ×
      </Button>
    </p>
  );
}
