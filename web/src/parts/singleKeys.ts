const KEPT = "level-tally.single-keys";

/** Whether letters and digits are commands inside a list (WCAG 2.1.4: they can be switched off). */
export function singleKeys(): boolean {
  return localStorage.getItem(KEPT) !== "off";
}

/** Whether keys go into a text, where undoing undoes the text. */
export function inText(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLInputElement ||
    target instanceof HTMLTextAreaElement ||
    target instanceof HTMLSelectElement
  );
}

export function setSingleKeys(on: boolean): void {
  localStorage.setItem(KEPT, on ? "on" : "off");
}
