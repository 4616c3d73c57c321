import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Grid, type Column, type Item } from "../parts/Grid";
import { useNarrow } from "../parts/useNarrow";
import { LevelStrip } from "../proof/LevelStrip";
import { ClaimSlip } from "./ClaimSlip";
import { markWords } from "../marks/Marks";
import { useNotes } from "../marks/useNotes";

type Asked = Schemas["AskedView"];
type Claim = Schemas["AskedClaim"];

/** One batch before its approver: what deserves a look first, and the three answers. */
export function ApprovalPage() {
  const id = Number(useParams().id);
  const asked = useQuery({
    queryKey: ["asked", id],
    queryFn: () => call(api.GET("/api/approval/{id}", { params: { path: { id } } })),
    staleTime: 0,
  });
  return <Loaded query={asked}>{(data) => <View key={id} asked={data} />}</Loaded>;
}

type Answer = "approve" | "strike" | "back";

function View({ asked }: { asked: Asked }) {
  const [values, change] = useAddress();
  const narrow = useNarrow();
  const [asking, setAsking] = useState<Answer>();
  const [notes, note] = useNotes(`${asked.id}-${asked.round}`);
  const items = useItems(asked, notes);
  const cursor = values.at ?? (asked.claims[0] && String(asked.claims[0].id));
  const claim = asked.claims.find((one) => String(one.id) === cursor);
  const bar = <AnswerBar asked={asked} claim={claim} notes={Object.keys(notes).length} onAsk={setAsking} />;
  return (
    <Station
      title={`Approval of ${asked.name}`}
      sentence={
        <>
          <b>{asked.name}</b>, <b>{asked.stateWords}</b>
          {asked.sentBy && `, asked by ${asked.sentBy}`}: checks of {shortDate(asked.checkDate)} from{" "}
          {asked.account}.
        </>
      }
      answer={
        <>
          <Figure value={`${asked.amount} ${asked.currency}`} />
          <Figure value={asked.claims.length}>{asked.claims.length === 1 ? "payment" : "payments"}</Figure>
          {asked.marked > 0 && (
            <Figure value={asked.marked} look="text-brass">
              marked
            </Figure>
          )}
          {asked.compared && (
            <Figure value={asked.changed + asked.gone.length}>changed since it was sent before</Figure>
          )}
          {asked.struck.length > 0 && <Figure value={asked.struck.length}>struck</Figure>}
          <Link className="text-harbour ml-auto underline" to={`/batches/${asked.id}`}>
            The whole batch
          </Link>
        </>
      }
      list={
        <Grid
          label="Payments"
          items={items}
          columns={narrow ? NARROW : asked.compared ? COMPARED : COLUMNS}
          cursor={cursor}
          onCursor={(key) => change({ at: key })}
          dim={(one) => one.since === "SAME" && one.inTheWay.length === 0}
          onKey={(key) => {
            if (key === "x" && asked.mayDecline) setAsking("strike");
            if (key === "n" && asked.mayDecline) document.getElementById("claim-note")?.focus();
          }}
          empty="Nothing is left in this batch."
        />
      }
      bar={narrow ? undefined : bar}
      slip={
        <ClaimSlip
          asked={asked}
          claim={claim}
          note={claim ? (notes[claim.id] ?? "") : ""}
          onNote={asked.mayDecline && claim ? (text) => note(claim.id, text) : undefined}
          onStep={(by) => {
            const index = asked.claims.findIndex((one) => String(one.id) === cursor);
            const next = asked.claims[index + by];
            if (next) change({ at: String(next.id) });
          }}
        />
      }
      strip={
        <>
          {narrow && (
            <div className="bg-paper border-ink sticky bottom-0 z-10 flex flex-wrap items-center gap-2 border-t px-4 py-2">
              {bar}
            </div>
          )}
          {!narrow && <LevelStrip batch={asked.id} />}
          <Questions
            asked={asked}
            claim={claim}
            notes={notes}
            asking={asking}
            onClose={() => setAsking(undefined)}
          />
        </>
      }
    />
  );
}

function useItems(asked: Asked, notes: Record<string, string>): Item<Claim>[] {
  const row = (claim: Claim): Item<Claim> => ({
    key: String(claim.id),
    row: notes[claim.id] ? { ...claim, payee: `${claim.payee} ✎` } : claim,
  });
  if (!asked.compared) return asked.claims.map(row);
  const same = asked.claims.filter((one) => one.since === "SAME" && one.inTheWay.length === 0);
  const other = asked.claims.filter((one) => !same.includes(one));
  const changed = other.length + asked.gone.length;
  return [
    {
      key: "changed",
      heading: (
        <span className="flex gap-2">
          <b>{changed === 0 ? "Nothing changed" : `Changed since it was sent before (${changed})`}</b>
          <span className="text-faint truncate text-[13px]">
            {asked.gone.length > 0 &&
              `gone: ${asked.gone.map((one) => `${one.payee} ${one.amount}`).join("; ")}`}
          </span>
        </span>
      ),
    },
    ...other.map(row),
    ...(same.length > 0
      ? [{ key: "same", heading: <b className="text-faint">As it was before ({same.length})</b> }]
      : []),
    ...same.map(row),
  ];
}

const SINCE: Record<string, string> = { NEW: "new", CHANGED: "was", SAME: "as before" };

const PAYEE: Column<Claim> = {
  title: "Payee",
  width: "minmax(150px,1.2fr)",
  cell: (claim) => <span className={claim.since === "SAME" ? "" : "font-semibold"}>{claim.payee}</span>,
};
const LOOK: Column<Claim> = {
  title: "Deserves a look",
  width: "minmax(150px,1.6fr)",
  cell: (claim) =>
    claim.inTheWay.length > 0 ? (
      <span className="text-rust" title={claim.inTheWay.join("; ")}>
        {claim.inTheWay.join(" · ")}
      </span>
    ) : (
      <span className="text-brass">
        {markWords(claim.marks)}
        {claim.marks.some((mark) => mark.answer) && <span className="text-faint"> · answered</span>}
      </span>
    ),
};
const LINES: Column<Claim> = {
  title: "Lines",
  width: "46px",
  right: true,
  cell: (claim) => claim.lines,
};
const AMOUNT: Column<Claim> = {
  title: "Amount",
  width: "100px",
  right: true,
  cell: (claim) => <b>{claim.amount}</b>,
};
const COLUMNS = [PAYEE, LOOK, LINES, AMOUNT];
const COMPARED: Column<Claim>[] = [
  PAYEE,
  LOOK,
  {
    title: "Before",
    width: "100px",
    right: true,
    cell: (claim) => (claim.was ? <s className="text-faint">{claim.was}</s> : SINCE[claim.since]),
  },
  AMOUNT,
];
const NARROW: Column<Claim>[] = [
  {
    title: "Payee",
    width: "1fr",
    cell: (claim) => (
      <>
        {(claim.marks.length > 0 || claim.inTheWay.length > 0) && (
          <b className="text-brass" aria-label="marked">
            !{" "}
          </b>
        )}
        {claim.payee}
      </>
    ),
  },
  AMOUNT,
];

function AnswerBar({
  asked,
  claim,
  notes,
  onAsk,
}: {
  asked: Asked;
  claim: Claim | undefined;
  notes: number;
  onAsk: (answer: Answer) => void;
}) {
  if (!asked.mayApprove && !asked.mayDecline)
    return <span className="text-faint">{asked.whyNot || "There is nothing to answer."}</span>;
  return (
    <>
      <span className="text-faint text-[13px] max-[640px]:hidden">
        {asked.onBehalfOf
          ? `You answer for ${asked.onBehalfOf}.`
          : `Prepared or changed by ${asked.hands.join(" and ")}.`}{" "}
        x strikes · n notes
      </span>
      <span className="ml-auto max-[640px]:hidden" />
      <Button onClick={() => onAsk("back")}>Send back{notes > 0 ? ` with ${notes}` : ""}…</Button>
      <Button disabled={!claim} onClick={() => onAsk("strike")}>
        Strike…
      </Button>
      {asked.mayApprove ? (
        <Button look="deed" disabled={asked.claims.length === 0} onClick={() => onAsk("approve")}>
          Approve…
        </Button>
      ) : (
        <span className="text-brass text-[13px]">{asked.whyNot}</span>
      )}
    </>
  );
}

function Questions({
  asked,
  claim,
  notes,
  asking,
  onClose,
}: {
  asked: Asked;
  claim: Claim | undefined;
  notes: Record<string, string>;
  asking: Answer | undefined;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const path = { params: { path: { id: asked.id } } };
  const done = async (said: string, away: boolean) => {
    if (away) navigate("/approval");
    await queries.invalidateQueries();
    toast(said);
  };
  const marked = asked.claims.filter((one) => one.marks.length > 0);
  const blocked = asked.claims.filter((one) => one.inTheWay.length > 0);
  const noted = asked.claims.filter((one) => notes[one.id]);
  return (
    <>
      <DeedDialog
        open={asking === "approve"}
        onClose={onClose}
        title={`Approve “${asked.name}”: ${asked.claims.length} ${asked.claims.length === 1 ? "payment" : "payments"}, ${asked.amount} ${asked.currency}`}
        deed={`Approve ${asked.amount}`}
        run={async () => {
          await call(api.POST("/api/batches/{id}/approve", { ...path, body: { seen: asked.seen } }));
          await done(`Approved: “${asked.name}”.`, true);
        }}
      >
        <p>
          You approve exactly these payees, addresses, bank details, amounts and invoices
          {asked.onBehalfOf && ` for ${asked.onBehalfOf}`}. If any of it changes, you are asked again.
        </p>
        {marked.length > 0 && (
          <p className="text-brass mt-2">
            Marked: {marked.map((one) => `${one.payee} (${markWords(one.marks)})`).join("; ")}.
          </p>
        )}
        {blocked.length > 0 && (
          <p className="text-rust mt-2">
            Will not be printed as it stands:{" "}
            {blocked.map((one) => `${one.payee}: ${one.inTheWay.join("; ")}`).join("; ")}.
          </p>
        )}
      </DeedDialog>
      <DeedDialog
        open={asking === "strike"}
        onClose={onClose}
        title={claim ? `Strike the payment to ${claim.payee}, ${claim.amount}` : "Strike a payment"}
        deed={claim ? `Strike ${claim.amount}` : "Strike"}
        grave
        reason="Why it is not paid now"
        run={async (reason) => {
          await call(
            api.POST("/api/batches/{id}/strike", { ...path, body: { claims: [claim!.id], reason } }),
          );
          await done(
            asked.claims.length === 1
              ? `Nothing is left of “${asked.name}”; it is withdrawn.`
              : `Struck: ${claim!.payee}. The rest stands.`,
            asked.claims.length === 1,
          );
        }}
      >
        <p>
          It leaves the batch; its invoices are open and free again. The other payments and what was approved
          of them stand.
          {asked.claims.length === 1 && " Nothing else is in this batch, so it closes as withdrawn."}
        </p>
      </DeedDialog>
      <DeedDialog
        open={asking === "back"}
        onClose={onClose}
        title={`Send “${asked.name}” back to ${asked.sentBy}`}
        deed="Send back"
        reason={noted.length > 0 ? "What should change, besides" : "What should change"}
        run={async (reason) => {
          await call(
            api.POST("/api/batches/{id}/send-back", {
              ...path,
              body: {
                reason,
                notes: noted.map((one) => ({ claim: one.id, note: notes[one.id]! })),
              },
            }),
          );
          await done(`“${asked.name}” is a draft again.`, true);
        }}
      >
        {noted.length > 0 ? (
          <ul>
            {noted.map((one) => (
              <li key={one.id}>
                <b>{one.payee}:</b> “{notes[one.id]}”
              </li>
            ))}
          </ul>
        ) : (
          <p>
            It becomes a draft and every approval of it is void. A note at a single payment (n) says which one
            you mean.
          </p>
        )}
      </DeedDialog>
    </>
  );
}
