import { useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { api, call } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { shortDate } from "../parts/dates";
import { Grid, type Item } from "../parts/Grid";
import { useNarrow } from "../parts/useNarrow";
import { LevelStrip } from "../proof/LevelStrip";
import { ClaimSlip } from "./ClaimSlip";
import { useNotes } from "../marks/useNotes";
import { type Claim, COLUMNS, COMPARED, NARROW } from "./askedColumns";
import { type Asked, type Answer, AnswerBar, Questions } from "./AnswerBar";

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
          {asked.sentBy && `, asked by ${asked.sentBy}`}:{" "}
          {asked.elsewhere ? <b>paid elsewhere already</b> : `by ${asked.by}`} on {shortDate(asked.checkDate)}{" "}
          from {asked.account}.
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
          {asked.note && <span>“{asked.note}”</span>}
          {asked.struck.length > 0 && <Figure value={asked.struck.length}>struck</Figure>}
          <Link className="go ml-auto" to={`/batches/${asked.id}`}>
            The whole batch
          </Link>
        </>
      }
      list={
        <Grid
          list="asked"
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
          <span className="text-faint truncate text-note">
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
