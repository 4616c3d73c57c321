import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { toast } from "sonner";
import { AnswerBar } from "../approval/AnswerBar";
import { api, call, Refused, type Schemas } from "../api/client";
import { useRest } from "../parts/useRest";
import { useAddress } from "../frame/address";
import { Figure, Skeleton, Station, Trouble } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { clock, dayMonth, shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Face } from "../parts/Face";
import { Grid, type Column, type Item } from "../parts/Grid";
import { LevelStrip } from "../proof/LevelStrip";
import { AddInvoices } from "./AddInvoices";
import { PayPart } from "./PayPart";

type Batch = Schemas["BatchView"];
type Line = Schemas["LineView"] & { claim: number; payee: string };

/** One batch: edited while a draft, answered while it waits for approval, looked at afterwards. */
export function BatchPage() {
  const id = Number(useParams().id);
  const batch = useQuery({
    queryKey: ["batch", id],
    queryFn: () => call(api.GET("/api/batches/{id}", { params: { path: { id } } })),
  });
  if (batch.error) return <Trouble error={batch.error} />;
  if (!batch.data) return <Skeleton />;
  return <View batch={batch.data} />;
}

function View({ batch }: { batch: Batch }) {
  const session = useSession();
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const [selected, setSelected] = useState<Set<string>>(new Set());
  const [paying, setPaying] = useState<{ line: Line; digit: string }>();
  const [adding, setAdding] = useState(false);
  const clerk = session.roles.includes("CLERK");
  const editable = clerk && ["DRAFT", "IN_APPROVAL", "APPROVED"].includes(batch.state);
  const lines = useMemo(() => {
    const found = new Map<string, Line>();
    for (const claim of batch.claims)
      for (const line of claim.lines)
        found.set(String(line.invoice), { ...line, claim: claim.id, payee: claim.payee });
    return found;
  }, [batch]);
  const items = useMemo<Item<Line>[]>(
    () =>
      batch.claims.flatMap((claim) => [
        {
          key: `claim-${claim.id}`,
          heading: (
            <div className="flex justify-between">
              <b className="truncate">{claim.payee}</b>
              <b>{claim.amount}</b>
            </div>
          ),
        },
        ...claim.lines.map((line) => ({
          key: String(line.invoice),
          row: { ...line, claim: claim.id, payee: claim.payee },
        })),
      ]),
    [batch],
  );
  const cursor = values.at;
  const at = cursor ? lines.get(cursor) : undefined;

  const show = async (next: Batch) => {
    queries.setQueryData(["batch", batch.id], next);
    await Promise.all([
      queries.invalidateQueries({ queryKey: ["level", batch.id] }),
      queries.invalidateQueries({ queryKey: ["work"] }),
      queries.invalidateQueries({ queryKey: ["claim-slip"] }),
    ]);
  };
  const refused = (error: unknown) => {
    toast.error(error instanceof Refused ? error.message : "That failed. Try again.", { duration: 12_000 });
    void queries.invalidateQueries({ queryKey: ["batch", batch.id] });
  };
  const pay = async (line: Line, cash: string | null, version: number) =>
    call(
      api.POST("/api/batches/{id}/lines/{invoice}/pay", {
        params: { path: { id: batch.id, invoice: line.invoice } },
        body: { version, cash: cash ?? undefined },
      }),
    );
  const takeOut = async (keys: string[]) => {
    let now = batch;
    const out: Line[] = [];
    try {
      for (const key of keys) {
        const line = lines.get(key);
        if (!line) continue;
        now = await call(
          api.POST("/api/batches/{id}/lines/{invoice}/take-out", {
            params: { path: { id: batch.id, invoice: line.invoice } },
            body: { version: now.version },
          }),
        );
        out.push(line);
      }
    } catch (error) {
      refused(error);
    }
    if (out.length === 0) return;
    setSelected(new Set());
    await show(now);
    const after = now.version;
    toast(`Took out ${out.map((line) => line.reference).join(", ")}.`, {
      duration: 15_000,
      action: {
        label: "Undo",
        onClick: async () => {
          try {
            let back = await call(
              api.POST("/api/batches/{id}/lines", {
                params: { path: { id: batch.id } },
                body: { version: after, invoices: out.map((line) => line.invoice) },
              }),
            );
            for (const line of out.filter((l) => l.part)) back = await pay(line, line.cash, back.version);
            await show(back);
          } catch (error) {
            refused(error);
          }
        },
      },
    });
  };
  const columns: Column<Line>[] = [
    {
      title: "Their reference",
      width: "minmax(120px,1.4fr)",
      cell: (line) => <span className="font-mono text-[13px]">{line.reference}</span>,
    },
    { title: "Dated", width: "64px", cell: (line) => dayMonth(line.invoiceDate) },
    { title: "Due", width: "64px", cell: (line) => dayMonth(line.dueDate) },
    { title: "Open", width: "92px", right: true, cell: (line) => line.open },
    { title: "Settles", width: "92px", right: true, cell: (line) => line.gross },
    {
      title: "Discount",
      width: "74px",
      right: true,
      cell: (line) => <span className="text-greentext">{line.discount}</span>,
    },
    {
      title: "Pays",
      width: "112px",
      right: true,
      cell: (line) => (
        <>
          {line.part && batch.state !== "POSTED" && <span className="text-brass mr-2 text-[13px]">part</span>}
          {line.cash}
        </>
      ),
    },
  ];
  return (
    <Station
      title={`Batch ${batch.name}`}
      sentence={
        <>
          <b>{batch.name}</b>, <b>{batch.stateWords}</b>: checks of {shortDate(batch.checkDate)} from{" "}
          {batch.accountName}, in the ledger on {shortDate(batch.ledgerDate)}.
        </>
      }
      answer={
        <>
          <Figure value={batch.claims.length}>{batch.claims.length === 1 ? "claim" : "claims"}</Figure>
          <Figure value={lines.size}>{lines.size === 1 ? "invoice" : "invoices"}</Figure>
          <Figure value={`${batch.amount} ${batch.currency}`} />
          <Figure value={batch.saved}>saved</Figure>
          <span>prepared by {batch.preparedBy}</span>
          {batch.sentBackReason && (
            <span className="text-brass">
              <b>Sent back:</b> {batch.sentBackReason}
            </span>
          )}
          {batch.note && <span>“{batch.note}”</span>}
        </>
      }
      list={
        <Grid
          label="Lines of the batch"
          items={items}
          columns={columns}
          cursor={cursor}
          onCursor={(key) => change({ at: key })}
          selected={selected}
          onSelect={setSelected}
          onSpace={editable ? (keys) => void takeOut(keys) : undefined}
          onEnter={editable ? (key) => setPaying({ line: lines.get(key)!, digit: "" }) : undefined}
          onDigit={editable ? (key, digit) => setPaying({ line: lines.get(key)!, digit }) : undefined}
          empty="This batch pays nothing now. Add an invoice, or withdraw it."
        />
      }
      bar={
        <Bar
          batch={batch}
          editable={editable}
          selected={selected.size > 0 ? [...selected] : cursor && at ? [cursor] : []}
          onAdd={() => setAdding(true)}
          onTakeOut={takeOut}
        />
      }
      slip={<Slip batch={batch} line={at} />}
      strip={
        <>
          <LevelStrip batch={batch.id} />
          {paying && (
            <PayPart
              line={paying.line}
              digit={paying.digit}
              state={batch.state}
              onClose={() => setPaying(undefined)}
              run={async (cash) => {
                const before = paying.line;
                const next = await pay(before, cash, batch.version);
                await show(next);
                const line = next.claims.flatMap((c) => c.lines).find((l) => l.invoice === before.invoice);
                toast(`${before.reference} pays ${line?.cash ?? cash}.`, {
                  duration: 15_000,
                  action: {
                    label: "Undo",
                    onClick: async () => {
                      try {
                        await show(await pay(before, before.part ? before.cash : null, next.version));
                      } catch (error) {
                        refused(error);
                      }
                    },
                  },
                });
              }}
            />
          )}
          <AddInvoices
            batch={batch}
            open={adding}
            onClose={() => setAdding(false)}
            onAdded={async (next, count) => {
              await show(next);
              toast(`Added ${count} ${count === 1 ? "invoice" : "invoices"}.`);
            }}
          />
        </>
      }
    />
  );
}

function Bar({
  batch,
  editable,
  selected,
  onAdd,
  onTakeOut,
}: {
  batch: Batch;
  editable: boolean;
  selected: string[];
  onAdd: () => void;
  onTakeOut: (keys: string[]) => Promise<void>;
}) {
  const session = useSession();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [sending, setSending] = useState(false);
  const [withdrawing, setWithdrawing] = useState(false);
  const at = { params: { path: { id: batch.id } }, body: { version: batch.version } };
  const approver = session.roles.includes("APPROVER") || session.roles.includes("CONTROLLER");
  if (batch.state === "IN_APPROVAL" && approver) return <AnswerBar batch={batch} />;
  return (
    <>
      {editable && (
        <>
          <Button onClick={onAdd}>Add invoices…</Button>
          <Button disabled={selected.length === 0} onClick={() => void onTakeOut(selected)}>
            Take out {selected.length > 1 ? selected.length : ""}
          </Button>
          <Button look="bare" onClick={() => setWithdrawing(true)}>
            Withdraw…
          </Button>
        </>
      )}
      <span className="text-faint ml-auto text-[13px]">
        {editable && "Space takes out · a digit pays part · ? keys"}
      </span>
      {batch.state === "DRAFT" && editable && (
        <Button look="deed" disabled={batch.claims.length === 0} onClick={() => setSending(true)}>
          Send for approval…
        </Button>
      )}
      {(batch.state === "APPROVED" || batch.state === "NUMBERED") && session.roles.includes("CLERK") && (
        <Link
          to={`/print/${batch.id}`}
          className="bg-harbour text-onharbour inline-flex min-h-8 items-center px-3 font-bold"
        >
          Go to printing
        </Link>
      )}
      <DeedDialog
        open={sending}
        onClose={() => setSending(false)}
        title={`Send “${batch.name}” for approval: ${batch.claims.length} ${batch.claims.length === 1 ? "claim" : "claims"}, ${batch.amount} ${batch.currency}`}
        deed="Send for approval"
        run={async () => {
          await call(api.POST("/api/batches/{id}/send", at));
          await queries.invalidateQueries();
          toast(`“${batch.name}” waits for approval.`);
        }}
      >
        <p>Payee and address of every claim stay as they are now. A change afterwards voids the approval.</p>
      </DeedDialog>
      <DeedDialog
        open={withdrawing}
        onClose={() => setWithdrawing(false)}
        title={`Withdraw “${batch.name}”`}
        deed="Withdraw the batch"
        grave
        run={async () => {
          await call(api.POST("/api/batches/{id}/withdraw", at));
          await queries.invalidateQueries();
          navigate("/batches");
        }}
      >
        <p>The batch is kept and can still be looked at; its invoices are free for another batch.</p>
      </DeedDialog>
    </>
  );
}

function Slip({ batch, line }: { batch: Batch; line: Line | undefined }) {
  const claim = useRest(line?.claim);
  const slip = useQuery({
    queryKey: ["claim-slip", batch.id, batch.version, claim],
    enabled: claim !== undefined,
    queryFn: () =>
      call(
        api.GET("/api/slips/claims/{batch}/{claim}", {
          params: { path: { batch: batch.id, claim: claim! } },
        }),
      ),
  });
  return (
    <div className="flex flex-col gap-4">
      {line === undefined && (
        <p className="text-faint">Move the cursor onto a line: its check appears here.</p>
      )}
      {line && slip.data && (
        <>
          <h2 className="font-semibold">{slip.data.title}</h2>
          {slip.data.face && <Face page={slip.data.face} label={`Check to ${line.payee}, not a check`} />}
          <address className="text-faint not-italic">
            {slip.data.address.map((text, i) => (
              <div key={i}>{text}</div>
            ))}
          </address>
        </>
      )}
      {batch.approvals.length > 0 && (
        <section>
          <h3 className="text-faint mb-1 text-[13px] font-semibold">Approval</h3>
          <ul>
            {batch.approvals.map((approval, i) => (
              <li key={i} className={approval.counts ? "" : "text-faint"}>
                {approval.who} {approval.outcome === "APPROVED" ? "approved" : "sent it back"},{" "}
                {clock(approval.at)}
                {approval.reason && `: ${approval.reason}`}
                {!approval.counts && approval.outcome === "APPROVED" && " (void: changed afterwards)"}
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
