const KEPT = "level-tally.single-keys";

/** Whether letters and digits are commands inside a list (WCAG 2.1.4: they can be switched off). */
export function singleKeys(): boolean {
  return localStorage.getItem(KEPT) !== "off";
}

export function setSingleKeys(on: boolean): void {
  localStorage.setItem(KEPT, on ? "on" : "off");
}
