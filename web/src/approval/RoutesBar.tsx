import { Button } from "../parts/Button";

/** What can be done with a set of routes, and with the next one while it is drawn up. */
export function RoutesBar({
  draft,
  mayKeep,
  mayConfirm,
  onCheck,
  onKeep,
  onConfirm,
  onChange,
  onLeave,
}: {
  draft: boolean;
  mayKeep: boolean;
  mayConfirm: boolean;
  onCheck: () => void;
  onKeep: () => void;
  onConfirm: () => void;
  onChange: () => void;
  onLeave: () => void;
}) {
  if (!mayKeep) return <span className="text-faint text-note">A controller keeps the routes.</span>;
  if (draft)
    return (
      <>
        <Button onClick={onCheck}>Check the routes</Button>
        <Button look="bare" onClick={onLeave}>
          Leave it as it was
        </Button>
        <span className="ml-auto" />
        <Button look="deed" onClick={onKeep}>
          Keep these routes…
        </Button>
      </>
    );
  return (
    <>
      <span className="text-faint text-note">
        A change is a new set, confirmed by a second person and in force from a later day; what was sent
        before keeps its route.
      </span>
      {mayConfirm && <Button onClick={onConfirm}>Confirm these routes…</Button>}
      <Button look="deed" className="ml-auto" onClick={onChange}>
        Change the routes
      </Button>
    </>
  );
}
