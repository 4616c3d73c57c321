/** A spirit level between two tallies; the word beside it says what the bubble shows. */
export function Vial({ bubble }: { bubble: string }) {
  const empty = bubble === "EMPTY";
  const off =
    bubble === "SHORT" || bubble === "WAITING" ? 27 : bubble === "OVER" || bubble === "UNEVEN" ? 7 : 17;
  const liquid = empty
    ? "none"
    : bubble === "LEVEL" || bubble === "WAITING"
      ? "var(--green)"
      : "var(--brass)";
  return (
    <svg width="46" height="14" viewBox="0 0 46 14" aria-hidden className="shrink-0">
      <rect
        x="0.7"
        y="0.7"
        width="44.6"
        height="12.6"
        rx="6.3"
        fill={liquid}
        stroke={empty ? "var(--hair)" : "var(--ink)"}
      />
      {!empty && <rect x={off - 1} y="3" width="14" height="8" rx="4" fill="var(--bubble)" />}
      <path d="M15 1v12M31 1v12" stroke={empty ? "var(--hair)" : "var(--ink)"} />
    </svg>
  );
}
