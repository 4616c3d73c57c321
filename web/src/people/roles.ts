import type { Schemas } from "../api/client";

export type Member = Schemas["MemberView"];
export type Role = Member["roles"][number];

/** The roles there are, with what each is trusted with. */
export const ROLES: [Role, string][] = [
  ["CLERK", "enters invoices, makes and prints batches"],
  ["APPROVER", "approves, strikes, sends back"],
  ["CONTROLLER", "sets routes and months, confirms vendor changes, may approve"],
  ["AUDITOR", "reads and exports everything, changes nothing"],
  ["ADMINISTRATOR", "adds, changes and disables people"],
];

export function words(roles: string[]): string {
  return roles.map((role) => role.toLowerCase()).join(", ");
}
