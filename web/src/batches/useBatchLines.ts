import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { api, call } from "../api/client";
import { writeRanges } from "../parts/ranges";
import { inText } from "../parts/singleKeys";
import { draftDeeds, type Batch } from "./draftDeeds";
import type { Line } from "./lines";
import { useEdits } from "./useEdits";

/**
 * What is chosen of a batch's lines and what is done to them, by keys and by buttons alike.
 *
 * @param lines each line by its entry, in their order
 * @param cursor the entry of the line under the cursor
 */
export function useBatchLines(
  batch: Batch,
  lines: Map<string, Line>,
  cursor: string | undefined,
  editable: boolean,
  change: (next: Record<string, string | undefined>) => void,
) {
  const [selected, setSelected] = useState<Set<string>>(new Set());
  const [paying, setPaying] = useState<{ line: Line; digit: string }>();
  const at = cursor ? lines.get(cursor) : undefined;
  const deeds = useMemo(() => draftDeeds(batch.id), [batch.id]);
  const edits = useEdits(batch.id, deeds, (next) =>
    setSelected((before) => new Set([...before].filter((key) => inBatch(next, Number(key))))),
  );
  const edit = edits.run;
  const leaving = useRef(new Set<number>());
  /** Takes lines out and goes on to the next at once: pressing Space twice takes out two. */
  const takeOut = (keys: string[]) => {
    const out = keys
      .map(Number)
      .filter((entry) => lines.get(String(entry))?.kind !== "CREDIT" && !leaving.current.has(entry));
    if (out.length === 0) return;
    out.forEach((entry) => leaving.current.add(entry));
    const rows = [...lines.keys()];
    const stays = (key: string) => !leaving.current.has(Number(key));
    const from = rows.indexOf(cursor ?? "");
    const next = rows.slice(from).find(stays) ?? rows.slice(0, Math.max(0, from)).reverse().find(stays);
    if (cursor && !stays(cursor)) change({ at: next });
    void edit((v) => deeds.takeOut(v, out), `Took out ${words(out, lines)}.`).finally(() =>
      out.forEach((entry) => leaving.current.delete(entry)),
    );
  };
  const chosen = selected.size > 0 ? [...selected].map(Number) : cursor && at ? [Number(cursor)] : [];
  const invoices = chosen.filter((entry) => lines.get(String(entry))?.kind !== "CREDIT");
  const commands: Record<string, () => void> = {
    o: () => at && void edit((v) => deeds.ownCheck(v, at.invoice), `${at.reference} has its own check.`),
    s: () => void edit((v) => deeds.split(v, invoices), `${invoices.length} split off.`),
    j: () => void edit((v) => deeds.join(v, invoices), "Joined."),
    n: () => change({ panel: "claim", focus: "note" }),
    c: () => change({ panel: "claim", focus: "credits" }),
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || !editable || inText(event.target)) return;
      if (event.key === "z" && batch.undo) {
        event.preventDefault();
        void edit(deeds.undo);
      } else if (event.key === "y" && batch.redo) {
        event.preventDefault();
        void edit(deeds.redo);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
  const payLine = (line: Line, cash: string | null): Promise<void> =>
    edits.must((v) => deeds.pay(v, line.invoice, cash), `${line.reference} pays ${cash ?? "all"}.`);
  /** The next line down that an amount can be typed on. */
  const nextOf = (line: Line): Line | undefined => {
    const rows = [...lines.values()];
    return rows
      .slice(rows.findIndex((one) => one.invoice === line.invoice) + 1)
      .find((one) => one.kind !== "CREDIT");
  };
  const pay = (key: string, digit: string) => {
    const line = lines.get(key);
    if (line && line.kind !== "CREDIT") setPaying({ line, digit });
  };
  const total = useTotal(batch, selected);
  return {
    at,
    selected,
    setSelected,
    total,
    edits,
    deeds,
    /** The invoices chosen, or the one under the cursor. */
    invoices,
    takeOut,
    commands,
    paying,
    setPaying,
    pay,
    payLine,
    nextOf,
  };
}

function inBatch(batch: Batch, entry: number): boolean {
  return batch.claims.some((claim) => claim.lines.some((line) => line.invoice === entry));
}

function words(entries: number[], lines: Map<string, Line>): string {
  return entries.length > 3
    ? `${entries.length} invoices`
    : entries.map((entry) => lines.get(String(entry))?.reference).join(", ");
}

function useTotal(batch: Batch, selected: Set<string>) {
  const ranges = useMemo(() => writeRanges([...selected].map(Number)), [selected]);
  const total = useQuery({
    queryKey: ["batch-total", batch.id, batch.version, ranges],
    enabled: selected.size > 1 && ranges.length < 30_000,
    queryFn: () =>
      call(
        api.GET("/api/batches/{id}/total", {
          params: { path: { id: batch.id }, query: { selected: ranges } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
  return selected.size > 1 ? total.data : undefined;
}
