import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, call, type Schemas } from "../api/client";
import { useKept } from "../parts/useKept";
import { useRest } from "../parts/useRest";

export type Fate = Schemas["FateAsked"];

/** What somebody wants of some payments that are to be undone. */
export interface Wish {
  /** The day it is dated; none dates each on its own. */
  date?: string;
  others: Fate;
  /** Invoices that become something else than the others, by payment and entry number. */
  single: Record<string, Fate>;
  /** The draft that takes what is open again. */
  into?: number;
  /** What the bank calls the return of what comes back through it. */
  bankReference?: string;
}

export const singleOf = (payment: number, invoice: number) => `${payment} ${invoice}`;

function askedOf(payments: number[], wish: Wish): Schemas["UndoAsked"] {
  return {
    payments: payments.map((payment) => ({
      payment,
      invoices: Object.entries(wish.single)
        .filter(([key]) => key.startsWith(`${payment} `))
        .map(([key, fate]) => ({ invoice: Number(key.split(" ")[1]), fate })),
    })),
    date: wish.date,
    others: wish.others,
    into: wish.into,
    bankReference: wish.bankReference,
  };
}

/** What undoing these payments would do as it is wished for, asked of the server whenever the wish rests. */
export function useUndo(payments: number[], today: string, how: Fate["how"] = "OPEN") {
  const first = useMemo<Wish>(() => ({ date: today, others: { how }, single: {} }), [today, how]);
  const [wish, set, forget] = useKept(`undo ${payments.join(".")}${how === "OPEN" ? "" : how}`, first);
  const asked = useRest(useMemo(() => askedOf(payments, wish), [payments, wish]));
  const would = useQuery({
    queryKey: ["undo", asked],
    queryFn: () => call(api.POST("/api/undoing/preview", { body: asked })),
    placeholderData: keepPreviousData,
  });
  return {
    wish,
    change: (next: Partial<Wish>) => set((now) => ({ ...now, ...next })),
    forget,
    would,
    /** As it would be sent now. */
    asked: askedOf(payments, wish),
  };
}

export type Undo = ReturnType<typeof useUndo>;
