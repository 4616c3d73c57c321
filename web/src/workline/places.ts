/** A page of the menu, or something done from it. */
export interface Place {
  to: string;
  title: string;
  /** Who finds something to do there; everybody where none is named. */
  roles?: string[];
  /** Other words people look for it by. */
  also?: string;
}

const LEADERS = ["CONTROLLER", "ADMINISTRATOR"];

/** What stands behind the name, grouped by what one comes for. Each is a command of Ctrl K as well. */
export const GROUPS: { title: string; places: Place[] }[] = [
  {
    title: "Look things up",
    places: [
      { to: "/register", title: "Register", also: "check numbers void" },
      {
        to: "/bank/paid",
        title: "What the bank paid",
        also: "clearing exceptions statement camt cleared match",
      },
      { to: "/bank/reconciled", title: "Bank and ledger", also: "reconcile reconciliation balance sign" },
      { to: "/bank/told", title: "What the bank told", also: "movements statement lines" },
      {
        to: "/bank/files",
        title: "Files of payments",
        also: "ach pain.001 credit transfers not known handed over",
      },
      {
        to: "/bank/notices",
        title: "What the bank sent back",
        also: "returns notification of change status report ach pain.002 refused",
      },
      { to: "/bank/exchange", title: "What travels", also: "sftp folder send fetch files answers" },
      { to: "/outside", title: "Payments made elsewhere", also: "outside wire card hand written manual" },
      { to: "/schedules", title: "Schedules", also: "rent lease again recurring direct payments" },
      { to: "/vendors", title: "Vendors" },
      { to: "/outstanding", title: "Outstanding checks", also: "as of stale aging uncleared" },
      { to: "/stale", title: "Checks not presented", also: "stale dated old contact payee letter unclaimed" },
      { to: "/aging", title: "What is owed", also: "aging payables as of" },
      {
        to: "/aging/documents",
        title: "Open documents",
        also: "open items invoices credits prepayments as of",
      },
      { to: "/unclaimed", title: "Handed over as unclaimed", also: "property state dormant" },
      { to: "/reportable", title: "Reportable payments", also: "year vendor tax" },
      { to: "/reportable/changed", title: "Reported, undone later", also: "earlier year changed reportable" },
      { to: "/closing", title: "Closing a month", also: "period lock list end" },
      { to: "/ledger", title: "Ledger", also: "journal entries month period lock unlock trial balance" },
      {
        to: "/ledger?view=hand-over",
        title: "Hand-over to the general ledger",
        also: "export journal file entries",
      },
      { to: "/proof", title: "Proof", also: "laws level" },
      { to: "/trail", title: "Trail", roles: [...LEADERS, "AUDITOR"], also: "audit who did what" },
      { to: "/mail", title: "Mail" },
    ],
  },
  {
    title: "Bring in",
    places: [
      { to: "/enter", title: "Enter an invoice", roles: ["CLERK"], also: "credit" },
      {
        to: "/outside/new",
        title: "Record payments made elsewhere",
        roles: ["CLERK"],
        also: "outside wire card hand written manual check",
      },
      {
        to: "/direct/new",
        title: "Pay without an invoice",
        roles: ["CLERK"],
        also: "direct payment expense one-time payee prepayment ahead rent",
      },
      { to: "/vendors/new", title: "New vendor", roles: ["CLERK"], also: "enter add supplier" },
      { to: "/bring-in", title: "Bring in files", also: "import csv" },
    ],
  },
  {
    title: "Rules",
    places: [
      { to: "/setup", title: "Set up", roles: LEADERS, also: "first check missing begin" },
      { to: "/company", title: "Company", roles: [...LEADERS, "AUDITOR"], also: "address grace stale zone" },
      { to: "/ledger?view=accounts", title: "Accounts of the ledger", also: "chart payables discounts" },
      { to: "/bank-layouts", title: "Layouts of bank files", also: "positive pay format records fields" },
      { to: "/bank-accounts", title: "Bank accounts", also: "series numbers holidays positive pay floor" },
      { to: "/printers", title: "Printers", also: "queue paper own printer" },
      { to: "/routes", title: "Routes of approval" },
      { to: "/deputies", title: "Deputies" },
      { to: "/people", title: "People", roles: LEADERS, also: "roles password" },
    ],
  },
  { title: "Yourself", places: [{ to: "/own", title: "Your sessions and password" }] },
];

/** The stations, in the order of the work. */
export const STATIONS = [
  { key: "due", title: "Due" },
  { key: "batches", title: "Batches" },
  { key: "approval", title: "Approval" },
  { key: "print", title: "Print" },
  { key: "post", title: "Post" },
  { key: "bank", title: "Bank" },
];

export function mayGo(place: Place, roles: readonly string[]): boolean {
  return !place.roles || place.roles.some((role) => roles.includes(role));
}

/** The places whose words begin with each word of the text; all of them for an empty one. */
export function placesFor(text: string, roles: readonly string[]): Place[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const stations = STATIONS.map(({ key, title }): Place => ({ to: `/${key}`, title, also: "station" }));
  return [...stations, ...GROUPS.flatMap((group) => group.places)].filter(
    (place) =>
      mayGo(place, roles) &&
      words.every((word) =>
        `${place.title} ${place.also ?? ""}`
          .toLowerCase()
          .split(" ")
          .some((one) => one.startsWith(word)),
      ),
  );
}
