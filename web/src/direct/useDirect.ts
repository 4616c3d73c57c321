import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { api, call, Refused, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { useDeed } from "../parts/useDeed";
import { useKept } from "../parts/useKept";
import { useRest } from "../parts/useRest";
import { EMPTY, isTyped, type TypedRow } from "./rows";

export interface Typing {
  /** By which the server knows this typing again when its answer was lost; what an older page kept has none. */
  as?: string;
  /** The way they go; none is the first there is. */
  way?: number;
  checkDate: string;
  name: string;
  note: string;
  rows: TypedRow[];
}

/** A name that nothing else this person types has. */
function aName(): string {
  return `${Date.now().toString(36)}-${Math.random().toString(36).slice(2)}`;
}

/**
 * Payments without an invoice as they are typed, what the server understands of them, and making their batch.
 *
 * @param made the batch whose payments are typed anew
 */
export function useDirect(ways: Schemas["DirectWay"][], made?: Schemas["DirectBatch"]) {
  const { today } = useSession();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [as, setAs] = useState(aName);
  const first = useMemo<Typing>(
    () => ({
      as,
      way: made?.way,
      checkDate: made?.checkDate ?? today,
      name: made?.name ?? "",
      note: made?.note ?? "",
      rows: made && made.rows.length > 0 ? made.rows : [EMPTY],
    }),
    [made, today, as],
  );
  const [typed, type, drop] = useKept<Typing>(
    made ? `direct ${made.batch} ${made.version}` : "without an invoice",
    first,
  );
  const forget = () => {
    drop();
    setAs(aName());
  };
  const way = ways.find((one) => one.way === typed.way) ?? ways[0];
  const places = typed.rows.flatMap((row, place) => (isTyped(row) ? [place] : []));
  const asked = useRest(
    JSON.stringify({
      account: way?.account ?? 0,
      way: way?.way ?? 0,
      batch: made?.batch ?? 0,
      checkDate: typed.checkDate,
      rows: places.map((place) => typed.rows[place]),
    }),
  );
  const look = useQuery({
    queryKey: ["direct-look", asked],
    enabled: way !== undefined && places.length > 0,
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: () => call(api.POST("/api/direct/look", { body: JSON.parse(asked) as Schemas["DirectAsked"] })),
  });
  const make = useDeed(
    async (send: boolean) => {
      if (!way) throw new Refused(0, "no-way", "There is no way to pay from here yet.", {});
      const body = {
        account: way.account,
        way: way.way,
        checkDate: typed.checkDate,
        name: typed.name,
        note: typed.note,
        send,
        typedAs: typed.as ?? as,
        version: made?.version ?? 0,
        rows: typed.rows.filter(isTyped),
      };
      if (!made) return call(api.POST("/api/direct", { body }));
      await call(api.POST("/api/direct/batches/{batch}", { params: { path: { batch: made.batch } }, body }));
      return made.batch;
    },
    {
      said: (_, send) =>
        made
          ? "The batch pays what you typed."
          : `The batch is made${send ? ", and sent for approval" : ""}.`,
      done: async (batch) => {
        forget();
        await queries.invalidateQueries();
        navigate(`/batches/${batch}`);
      },
    },
  );
  return {
    typed,
    way,
    change: (next: Partial<Typing>) => type((now) => ({ ...now, ...next })),
    setRows: (next: (rows: TypedRow[]) => TypedRow[]) => type((now) => ({ ...now, rows: next(now.rows) })),
    forget,
    look,
    /** How the row at a place is understood; nothing where it is not, or not yet. */
    seen: (place: number) => look.data?.rows[places.indexOf(place)],
    count: places.length,
    make,
  };
}

export type DirectNow = ReturnType<typeof useDirect>;
