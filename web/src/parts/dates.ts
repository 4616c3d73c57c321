const DAYS = ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"];
const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

function parsed(iso: string): Date {
  return new Date(`${iso}T00:00:00Z`);
}

/** `Thu 12 Nov 2026`, from `2026-11-12`. */
export function longDate(iso: string): string {
  return `${shortDate(iso)} ${iso.slice(0, 4)}`;
}

/** `Thu 12 Nov`. */
export function shortDate(iso: string): string {
  const date = parsed(iso);
  return `${DAYS[date.getUTCDay()]} ${date.getUTCDate()} ${MONTHS[date.getUTCMonth()]}`;
}

/** `12 Nov`. */
export function dayMonth(iso: string): string {
  const date = parsed(iso);
  return `${date.getUTCDate()} ${MONTHS[date.getUTCMonth()]}`;
}

/** `14:05` on the day itself, with the day otherwise; in the reader's own time zone. */
export function clock(instant: string): string {
  const at = new Date(instant);
  const time = `${String(at.getHours()).padStart(2, "0")}:${String(at.getMinutes()).padStart(2, "0")}`;
  return at.toDateString() === new Date().toDateString()
    ? time
    : `${at.getDate()} ${MONTHS[at.getMonth()]} ${at.getFullYear()} ${time}`;
}

/** How long ago an instant was, such as `5 min`, `3 h` or `2 days`. */
export function waited(instant: string, now = Date.now()): string {
  const minutes = Math.max(0, Math.floor((now - new Date(instant).getTime()) / 60_000));
  if (minutes < 60) return `${minutes} min`;
  if (minutes < 48 * 60) return `${Math.floor(minutes / 60)} h`;
  return `${Math.floor(minutes / 1440)} days`;
}
