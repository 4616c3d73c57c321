import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { useNavigate } from "react-router";
import { api, call, Refused, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { useDeed } from "../parts/useDeed";
import { useKept } from "../parts/useKept";
import { useRest } from "../parts/useRest";
import { after, isTyped, type TypedRow } from "./rows";

export interface Recording {
  /** The way they went; none is the first there is. */
  way?: number;
  name: string;
  note: string;
  rows: TypedRow[];
}

/**
 * Payments made elsewhere as they are typed, what the server understands of them, and recording them.
 *
 * @param recorded the batch whose payments are typed anew
 */
export function useRecording(ways: Schemas["OutsideWay"][], recorded?: Schemas["OutsideBatch"]) {
  const { today } = useSession();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const first = useMemo<Recording>(
    () => ({
      way: recorded?.way,
      name: recorded?.name ?? "",
      note: recorded?.note ?? "",
      rows: recorded ? recorded.rows : [after(undefined, today)],
    }),
    [recorded, today],
  );
  const [typed, type, forget] = useKept<Recording>(
    recorded ? `recorded ${recorded.batch} ${recorded.version}` : "made elsewhere",
    first,
  );
  const way = ways.find((one) => one.way === typed.way) ?? ways[0];
  const places = typed.rows.flatMap((row, place) => (isTyped(row) && row.paidOn ? [place] : []));
  const asked = useRest(
    JSON.stringify({
      account: way?.account ?? 0,
      way: way?.way ?? 0,
      batch: recorded?.batch ?? 0,
      rows: places.map((place) => typed.rows[place]),
    }),
  );
  const look = useQuery({
    queryKey: ["outside-look", asked],
    enabled: way !== undefined && places.length > 0,
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: () =>
      call(api.POST("/api/outside/look", { body: JSON.parse(asked) as Schemas["OutsideAsked"] })),
  });
  const body = () => {
    if (!way) throw new Refused(0, "no-way", "There is no way to record here yet.", {});
    const dayless = typed.rows.findIndex((row) => isTyped(row) && !row.paidOn);
    if (dayless >= 0) throw new Refused(0, "no-day", `Row ${dayless + 1}: say on which day it was paid.`, {});
    return {
      account: way.account,
      way: way.way,
      name: typed.name,
      note: typed.note,
      rows: typed.rows.filter(isTyped),
    };
  };
  const record = useDeed(
    async (send: boolean) => {
      if (!recorded) return call(api.POST("/api/outside", { body: { ...body(), send } }));
      const params = { path: { batch: recorded.batch } };
      await call(
        api.POST("/api/outside/batches/{batch}", { params, body: { ...body(), version: recorded.version } }),
      );
      return [recorded.batch];
    },
    {
      said: (batches, send) =>
        `Recorded${batches.length > 1 ? `, in ${batches.length} batches, one for each day` : ""}${send ? ", and sent for approval" : ""}.`,
      done: async (batches) => {
        forget();
        await queries.invalidateQueries();
        navigate(batches.length === 1 ? `/batches/${batches[0]}` : "/batches");
      },
    },
  );
  return {
    typed,
    way,
    today,
    change: (next: Partial<Recording>) => type((now) => ({ ...now, ...next })),
    setRows: (next: (rows: TypedRow[]) => TypedRow[]) => type((now) => ({ ...now, rows: next(now.rows) })),
    forget,
    look,
    /** How the row at a place is understood; nothing where it is not, or not yet. */
    seen: (place: number) => look.data?.rows[places.indexOf(place)],
    count: places.length,
    record,
  };
}

export type RecordingNow = ReturnType<typeof useRecording>;
