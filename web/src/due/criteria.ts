import { useMemo } from "react";
import type { Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { nextFriday, plusDays } from "../parts/dates";

export type Account = Schemas["BankAccountView"];
export type Group = "DAY" | "VENDOR";

export interface Criteria {
  account: number;
  checkDate: string;
  dueBy: string;
  nextRun: string | undefined;
  vendor: number | undefined;
  out: number[];
  add: number[];
}

const numbers = (text: string | undefined) =>
  text ? text.split(".").map(Number).filter(Number.isFinite) : [];

/** The criteria as the address has them. */
export function useCriteria(today: string, accounts: Account[]) {
  const [values, change] = useAddress();
  const { account, check, due, next, vendor, out, add } = values;
  const criteria = useMemo<Criteria>(() => {
    const checkDate = check ?? nextFriday(today);
    return {
      account: Number(account ?? accounts[0]?.id ?? 0),
      checkDate,
      dueBy: due ?? plusDays(checkDate, 7),
      nextRun: next === "none" ? undefined : (next ?? plusDays(checkDate, 14)),
      vendor: vendor ? Number(vendor) : undefined,
      out: numbers(out),
      add: numbers(add),
    };
  }, [account, check, due, next, vendor, out, add, today, accounts]);
  const group: Group = values.group === "vendor" ? "VENDOR" : "DAY";
  return { criteria, group, cursor: values.at, change };
}
