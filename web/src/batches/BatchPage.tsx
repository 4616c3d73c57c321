import { useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { api, call } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { AmountCell } from "../parts/AmountCell";
import { shortDate } from "../parts/dates";
import { Grid } from "../parts/Grid";
import { LevelStrip } from "../proof/LevelStrip";
import { AddInvoices } from "./AddInvoices";
import { BatchBar } from "./BatchBar";
import { BatchSlip } from "./BatchSlip";
import { PayPart } from "./PayPart";
import type { Batch } from "./draftDeeds";
import { columnsOf, useLines } from "./lineRows";
import { useBatchLines } from "./useBatchLines";
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
  const [adding, setAdding] = useState(false);
  const clerk = session.roles.includes("CLERK");
  const open = clerk && ["DRAFT", "IN_APPROVAL", "APPROVED"].includes(batch.state);
  // the lines of a reissue are those of the payment it replaces
  const editable = open && !batch.kept;
  const looks = useLooks(batch).view;
  const { lines, items } = useLines(batch, looks);
  const cursor = values.at;
  const chosen = useBatchLines(batch, lines, cursor, editable, change);
  const { at, edits, deeds, paying, setPaying, pay, payLine, nextOf } = chosen;
  const claim = at && batch.claims.find((one) => one.id === at.claim);

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
          <b>{batch.name}</b>, <b>{batch.stateWords}</b>:{" "}
          {batch.purpose === "OUTSIDE" ? (
            <>
              paid elsewhere on {shortDate(batch.checkDate)} from {batch.accountName},{" "}
            </>
          ) : (
            <>
              by {batch.by} on {shortDate(batch.checkDate)} from {batch.accountName},{" "}
            </>
          )}
          in the ledger on {shortDate(batch.ledgerDate)}
          {batch.purpose !== "OUTSIDE" && `, numbered by ${batch.order}`}.
        </>
      }
      answer={<Figures batch={batch} marked={looks?.marks.length ?? 0} />}
      list={
        <Grid
          list="batch-lines"
          label="Lines of the batch"
          items={items}
          columns={columns}
          cursor={cursor}
          onCursor={(key) => change({ at: key })}
          selected={chosen.selected}
          onSelect={chosen.setSelected}
          onSpace={editable ? chosen.takeOut : undefined}
          onEnter={editable ? (key) => pay(key, "") : undefined}
          onDigit={editable ? pay : undefined}
          onKey={editable ? (key) => chosen.commands[key]?.() : undefined}
          empty="This batch pays nothing now. Add an invoice, gather again, or withdraw it."
        />
      }
      bar={
        <BatchBar
          batch={batch}
          editable={editable}
          selected={chosen.invoices}
          total={chosen.total}
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
}

/** What the batch comes to, and what is to be known of it. */
function Figures({ batch, marked }: { batch: Batch; marked: number }) {
  const entries = batch.claims.reduce((sum, claim) => sum + claim.lines.length, 0);
  return (
    <>
      <Figure value={batch.claims.length}>{batch.claims.length === 1 ? "claim" : "claims"}</Figure>
      <Figure value={entries}>{entries === 1 ? "entry" : "entries"}</Figure>
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
      {marked > 0 && (
        <Figure value={marked} look="text-brass">
          {marked === 1 ? "payment" : "payments"} to look at
        </Figure>
      )}
      {(batch.state === "POSTED" || batch.state === "NUMBERED") && (
        <Link className="go ml-auto" to={`/batches/${batch.id}/posted`}>
          What was posted
        </Link>
      )}
      <Link
        className={`go ${batch.state === "POSTED" || batch.state === "NUMBERED" ? "" : "ml-auto"}`}
        to={`/batches/${batch.id}/list`}
      >
        As a list
      </Link>
    </>
  );
}
