import { useMemo } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "../api/client";
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

const numbers = (text: string | null) => (text ? text.split(".").map(Number).filter(Number.isFinite) : []);

/** The criteria as the address has them, so that any of them can be linked and survives a reload. */
export function useCriteria(today: string, accounts: Account[]) {
  const [params, setParams] = useSearchParams();
  const criteria = useMemo<Criteria>(() => {
    const checkDate = params.get("check") ?? nextFriday(today);
    return {
      account: Number(params.get("account") ?? accounts[0]?.id ?? 0),
      checkDate,
      dueBy: params.get("due") ?? plusDays(checkDate, 7),
      nextRun: params.get("next") === "none" ? undefined : (params.get("next") ?? plusDays(checkDate, 14)),
      vendor: params.get("vendor") ? Number(params.get("vendor")) : undefined,
      out: numbers(params.get("out")),
      add: numbers(params.get("add")),
    };
  }, [params, today, accounts]);
  const group: Group = params.get("group") === "vendor" ? "VENDOR" : "DAY";
  const change = (next: Record<string, string | undefined>) =>
    setParams(
      (before) => {
        const changed = new URLSearchParams(before);
        for (const [key, value] of Object.entries(next)) {
          if (value === undefined || value === "") changed.delete(key);
          else changed.set(key, value);
        }
        return changed;
      },
      { replace: true },
    );
  return { criteria, group, cursor: params.get("at") ?? undefined, change };
}
