const KEPT = "level-tally.single-keys";

/** Whether letters, digits and signs are commands (WCAG 2.1.4: they can be switched off). */
export function singleKeys(): boolean {
  return localStorage.getItem(KEPT) !== "off";
}

export function setSingleKeys(on: boolean): void {
  localStorage.setItem(KEPT, on ? "on" : "off");
}

/** Whether keys go into a text, where undoing undoes the text. */
export function inText(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLInputElement ||
    target instanceof HTMLTextAreaElement ||
    target instanceof HTMLSelectElement
  );
}

/** A key that is held down types and moves, but does nothing a second time: a deed is asked for once by each press. */
export function ignoreHeldKeys(): () => void {
  const onKey = (event: KeyboardEvent) => {
    if (!event.repeat || (event.key !== "Enter" && event.key !== " ")) return;
    const typing = event.key === "Enter" ? event.target instanceof HTMLTextAreaElement : inText(event.target);
    if (typing) return;
    event.preventDefault();
    event.stopPropagation();
  };
  window.addEventListener("keydown", onKey, true);
  return () => window.removeEventListener("keydown", onKey, true);
}
