/** A whole number as it was typed; what is none is refused at its field, never read as another. */
export function whole(text: string): number | undefined {
  return /^\d{1,9}$/.test(text.trim()) ? Number(text) : undefined;
}
