import { useMemo } from "react";
import type { Schemas } from "../api/client";
import type { paths } from "../api/schema";
import { useAddress } from "../frame/address";
import { useArrangement } from "../parts/useArrangement";

export type Account = Schemas["BankAccountView"];
export type Question = Schemas["DueQuestion"];
export type ListedBy = "DAY" | "VENDOR" | "GROUP" | "CASH";
export type Showing = "ALL" | "TAKEN" | "LEFT_OUT";
/** How the list of a question is shown: grouped, all of it or part, narrowed to days of the horizon. */
export interface HowListed {
  listedBy: ListedBy;
  showing: Showing;
  days: string | undefined;
  sortedBy: Order | undefined;
  descending: boolean | undefined;
}
type Order = NonNullable<paths["/api/due"]["get"]["parameters"]["query"]>["sortedBy"];
export type CashWay = NonNullable<Question["way"]>;

/** The words of the sentence beyond account and dates: the name in the address is the name in the question. */
export const FURTHER = [
  "vendorGroup",
  "priorityFrom",
  "priorityTo",
  "datedFrom",
  "datedTo",
  "referenceFrom",
  "referenceTo",
  "entryFrom",
  "entryTo",
  "amountFrom",
  "amountTo",
  "smallest",
  "grouping",
  "order",
] as const;
export type Further = (typeof FURTHER)[number];

const NUMBERS: readonly string[] = ["priorityFrom", "priorityTo", "entryFrom", "entryTo"];

export type Change = (next: Record<string, string | undefined>) => void;

/** A day that is whatever the server proposes: the account's planned run, and what follows from it. */
const USUAL = "usual";

/** The sentence as the address has it. */
export function useCriteria(accounts: Account[]) {
  const [values, change] = useAddress();
  const question = useMemo<Question>(() => {
    const account = Number(values.account ?? accounts[0]?.id ?? 0);
    const further: Record<string, string | number> = {};
    for (const name of FURTHER) {
      const value = values[name];
      if (value) further[name] = NUMBERS.includes(name) ? Number(value) : value;
    }
    return {
      account,
      wayToPay: values.pay ? Number(values.pay) : undefined,
      checkDate: values.check ?? USUAL,
      ledgerDate: values.ledger,
      dueBy: values.due ?? USUAL,
      nextRun: values.next === "none" ? undefined : (values.next ?? USUAL),
      vendors: values.vendors ? values.vendors.split(".").map(Number) : undefined,
      credits: values.credits === "yes" ? true : undefined,
      limit: values.limit,
      way: values.way as CashWay | undefined,
      out: values.out,
      in: values.in,
      ...further,
    };
  }, [values, accounts]);
  const [{ sortedBy, descending }] = useArrangement("due");
  const how = useMemo<HowListed>(
    () => ({
      listedBy: (values.by ?? (values.limit ? "CASH" : "DAY")) as ListedBy,
      showing: (values.show ?? "ALL") as Showing,
      days: values.days,
      sortedBy: sortedBy as Order,
      descending: sortedBy ? descending : undefined,
    }),
    [values, sortedBy, descending],
  );
  return { question, how, values, change };
}

function unusual(day: string | null | undefined): string | undefined {
  return day && day !== USUAL ? day : undefined;
}

/** A kept sentence back into the address; marks by hand belong to the list they were made in. */
export function addressOf(question: Question): Record<string, string | undefined> {
  const next: Record<string, string | undefined> = {
    account: String(question.account),
    pay: question.wayToPay ? String(question.wayToPay) : undefined,
    check: unusual(question.checkDate),
    ledger: question.ledgerDate ?? undefined,
    due: unusual(question.dueBy),
    next: question.nextRun ? unusual(question.nextRun) : "none",
    vendors: question.vendors?.length ? question.vendors.join(".") : undefined,
    credits: question.credits ? "yes" : undefined,
    limit: question.limit ?? undefined,
    way: question.way ?? undefined,
    out: undefined,
    in: undefined,
    at: undefined,
    days: undefined,
    show: undefined,
  };
  for (const name of FURTHER) {
    const value = question[name];
    next[name] = value === undefined || value === null ? undefined : String(value);
  }
  return next;
}
