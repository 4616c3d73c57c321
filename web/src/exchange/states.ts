/** What became of a file of the bank. */
export const STATES: Record<string, string> = { WAITING: "waits", READ: "read", SET_ASIDE: "set aside" };
