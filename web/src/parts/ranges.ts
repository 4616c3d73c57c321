/** Entry numbers as an address carries them: `7001-7090.7731`. */
export function writeRanges(entries: Iterable<number>): string {
  const sorted = [...new Set(entries)].sort((a, b) => a - b);
  const parts: string[] = [];
  for (let i = 0; i < sorted.length;) {
    let end = i;
    while (end + 1 < sorted.length && sorted[end + 1] === sorted[end]! + 1) end++;
    parts.push(end === i ? String(sorted[i]) : `${sorted[i]}-${sorted[end]}`);
    i = end + 1;
  }
  return parts.join(".");
}

/** More than any list holds; a longer range in an address is no selection. */
const MOST = 200_000;

export function readRanges(text: string | undefined): Set<number> {
  const entries = new Set<number>();
  for (const part of (text ?? "").split(".")) {
    const [from, to] = part.split("-").map(Number);
    if (!from || !Number.isInteger(from)) continue;
    const last = to && Number.isInteger(to) ? to : from;
    if (last - from + entries.size >= MOST) continue;
    for (let entry = from; entry <= last; entry++) entries.add(entry);
  }
  return entries;
}
