const DAYS = ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"];
const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

function parsed(iso: string): Date {
  return new Date(`${iso}T00:00:00Z`);
}

function dayOfWeek(iso: string): string {
  return `${DAYS[parsed(iso).getUTCDay()]} ${dayMonth(iso)}`;
}

/** `Thu 12 Nov 2026`, from `2026-11-12`. */
export function longDate(iso: string): string {
  return `${dayOfWeek(iso)} ${iso.slice(0, 4)}`;
}

/** `Thu 12 Nov`, or `Mon 31 May 2027` where that is another year than the business day's. */
export function shortDate(iso: string): string {
  return businessYear === "" || iso.startsWith(businessYear) ? dayOfWeek(iso) : longDate(iso);
}

/** `12 Nov`. */
export function dayMonth(iso: string): string {
  const date = parsed(iso);
  return `${date.getUTCDate()} ${MONTHS[date.getUTCMonth()]}`;
}

let zone = "UTC";
let businessYear = "";

/** The business day and its time zone, as the server has them: instants are shown in it, wherever one reads them. */
export function showOn(day: string, inZone: string): void {
  businessYear = day.slice(0, 4);
  zone = inZone;
}

/** `26 Nov 2026 14:05`, of an instant, in the zone of the business day. */
export function clock(instant: string): string {
  const parts = new Intl.DateTimeFormat("en-GB", {
    timeZone: zone,
    year: "numeric",
    month: "numeric",
    day: "numeric",
    hour: "2-digit",
    minute: "2-digit",
    hourCycle: "h23",
  }).formatToParts(new Date(instant));
  const part = (type: string) => parts.find((one) => one.type === type)!.value;
  return `${Number(part("day"))} ${MONTHS[Number(part("month")) - 1]} ${part("year")} ${part("hour")}:${part("minute")}`;
}

/** How long ago an instant was at another, such as `5 min`, `3 h` or `2 days`; both are the server's. */
export function waited(instant: string, now: string): string {
  const minutes = Math.max(0, Math.floor((new Date(now).getTime() - new Date(instant).getTime()) / 60_000));
  if (minutes < 60) return `${minutes} min`;
  if (minutes < 48 * 60) return `${Math.floor(minutes / 60)} h`;
  return `${Math.floor(minutes / 1440)} days`;
}
