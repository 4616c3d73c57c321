import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useEffect, useMemo, useRef, useState } from "react";
import { useParams } from "react-router";
import { api, call } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { AmountCell } from "../parts/AmountCell";
import { shortDate } from "../parts/dates";
import { Grid } from "../parts/Grid";
import { inText } from "../parts/singleKeys";
import { writeRanges } from "../parts/ranges";
import { LevelStrip } from "../proof/LevelStrip";
import { AddInvoices } from "./AddInvoices";
import { BatchBar } from "./BatchBar";
import { BatchSlip } from "./BatchSlip";
import { PayPart } from "./PayPart";
import { draftDeeds, type Batch } from "./draftDeeds";
import { columnsOf, useLines } from "./lineRows";
import type { Line } from "./lines";
import { useEdits } from "./useEdits";
import { useLooks } from "./useLooks";

/** One batch: edited while a draft, answered while it waits for approval, looked at afterwards. */
export function BatchPage() {
  const id = Number(useParams().id);
  const batch = useQuery({
    queryKey: ["batch", id],
    queryFn: () => call(api.GET("/api/batches/{id}", { params: { path: { id } } })),
  });
  return <Loaded query={batch}>{(data) => <View key={id} batch={data} />}</Loaded>;
}

function View({ batch }: { batch: Batch }) {
  const session = useSession();
  const [values, change] = useAddress();
  const [selected, setSelected] = useState<Set<string>>(new Set());
  const [paying, setPaying] = useState<{ line: Line; digit: string }>();
  const [adding, setAdding] = useState(false);
  const clerk = session.roles.includes("CLERK");
  const editable = clerk && ["DRAFT", "IN_APPROVAL", "APPROVED"].includes(batch.state);
  const looks = useLooks(batch).view;
  const { lines, items } = useLines(batch, looks);
  const cursor = values.at;
  const at = cursor ? lines.get(cursor) : undefined;
  const claim = at && batch.claims.find((one) => one.id === at.claim);
  const total = useTotal(batch, selected);
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
  const columns = columnsOf(batch, (line) =>
    paying?.line.invoice === line.invoice && batch.state === "DRAFT" ? (
      <AmountCell
        label={`Pays on ${line.reference}, open ${line.open}`}
        value={line.cash}
        digit={paying.digit}
        keep={(typed) => payLine(line, typed === "" ? null : typed)}
        onGone={(how) => {
          const next = nextOf(line);
          setPaying(how === "next" && next ? { line: next, digit: "" } : undefined);
          if (next && (how === "next" || how === "down")) change({ at: String(next.invoice) });
        }}
      />
    ) : undefined,
  );
  return (
    <Station
      title={`Batch ${batch.name}`}
      sentence={
        <>
          <b>{batch.name}</b>, <b>{batch.stateWords}</b>: checks of {shortDate(batch.checkDate)} from{" "}
          {batch.accountName}, in the ledger on {shortDate(batch.ledgerDate)}, numbered by {batch.order}.
        </>
      }
      answer={
        <>
          <Figure value={batch.claims.length}>{batch.claims.length === 1 ? "claim" : "claims"}</Figure>
          <Figure value={lines.size}>{lines.size === 1 ? "entry" : "entries"}</Figure>
          <Figure value={`${batch.amount} ${batch.currency}`} />
          <Figure value={batch.saved}>saved</Figure>
          {batch.credited && <Figure value={batch.credited}>credits used</Figure>}
          <span>prepared by {batch.preparedBy}</span>
          {batch.sentBackReason && (
            <span className="text-brass">
              <b>Sent back:</b> {batch.sentBackReason}
            </span>
          )}
          {batch.note && <span>“{batch.note}”</span>}
          {looks && looks.marks.length > 0 && (
            <Figure value={looks.marks.length} look="text-brass">
              {looks.marks.length === 1 ? "payment" : "payments"} to look at
            </Figure>
          )}
        </>
      }
      list={
        <Grid
          list="batch-lines"
          label="Lines of the batch"
          items={items}
          columns={columns}
          cursor={cursor}
          onCursor={(key) => change({ at: key })}
          selected={selected}
          onSelect={setSelected}
          onSpace={editable ? takeOut : undefined}
          onEnter={editable ? (key) => pay(key, "") : undefined}
          onDigit={editable ? pay : undefined}
          onKey={editable ? (key) => commands[key]?.() : undefined}
          empty="This batch pays nothing now. Add an invoice, gather again, or withdraw it."
        />
      }
      bar={
        <BatchBar
          batch={batch}
          editable={editable}
          selected={invoices}
          total={total}
          edits={edits}
          deeds={deeds}
          onAdd={() => setAdding(true)}
          onPay={() => at && pay(String(at.invoice), "")}
        />
      }
      slip={
        <BatchSlip
          batch={batch}
          claim={claim}
          line={at}
          editable={editable}
          panel={values.panel ?? "payment"}
          focus={values.focus}
          edits={edits}
          deeds={deeds}
          onPanel={(panel) => change({ panel: panel === "payment" ? undefined : panel, focus: undefined })}
        />
      }
      strip={
        <>
          <LevelStrip batch={batch.id} />
          {paying && batch.state !== "DRAFT" && (
            <PayPart
              line={paying.line}
              digit={paying.digit}
              onClose={() => setPaying(undefined)}
              run={(cash) => payLine(paying.line, cash)}
            />
          )}
          <AddInvoices
            batch={batch}
            open={adding}
            onClose={() => setAdding(false)}
            add={(invoices) =>
              edits.must(
                (v) => deeds.add(v, invoices),
                `Added ${invoices.length} ${invoices.length === 1 ? "invoice" : "invoices"}.`,
              )
            }
          />
        </>
      }
    />
  );

  function payLine(line: Line, cash: string | null): Promise<void> {
    return edits.must((v) => deeds.pay(v, line.invoice, cash), `${line.reference} pays ${cash ?? "all"}.`);
  }

  /** The next line down that an amount can be typed on. */
  function nextOf(line: Line): Line | undefined {
    const rows = [...lines.values()];
    return rows
      .slice(rows.findIndex((one) => one.invoice === line.invoice) + 1)
      .find((one) => one.kind !== "CREDIT");
  }

  function pay(key: string, digit: string) {
    const line = lines.get(key);
    if (line && line.kind !== "CREDIT") setPaying({ line, digit });
  }
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
