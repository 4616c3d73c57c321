import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Loaded } from "../parts/Loaded";
import { MonthsDrawn } from "./MonthsDrawn";
import { UndoAll, verb } from "./UndoDeed";
import { UndoEffect } from "./UndoEffect";
import { UndoneList } from "./UndoneList";

/** What somebody asks to be undone, for the second person: what it would do now, and the answer. */
export function AskedPage() {
  const id = Number(useParams().id);
  const asked = useQuery({
    queryKey: ["undoing", id],
    queryFn: () => call(api.GET("/api/undoing/{id}", { params: { path: { id } } })),
  });
  return <Loaded query={asked}>{(whole) => <Asked whole={whole} />}</Loaded>;
}

function Asked({ whole }: { whole: Schemas["UndoingWhole"] }) {
  const { asked, would } = whole;
  const [values, change] = useAddress();
  const cursor = values.at ?? (would?.payments[0] ? String(would.payments[0].payment) : undefined);
  const one = would?.payments.find((each) => String(each.payment) === cursor);
  return (
    <Station
      title="Asked to be undone"
      sentence={
        <>
          <b>{asked.who}</b> asks to {would ? verb(would).toLowerCase() : asked.asksTo}{" "}
          <b>{would?.what ?? asked.names.join(" · ")}</b>, on {longDate(asked.on)}: “{asked.reason}”.
        </>
      }
      answer={
        <>
          {asked.amounts.map((sum) => (
            <Figure key={sum.currency} value={`${sum.text} ${sum.currency}`} />
          ))}
          <span className={would ? "text-brass" : ""}>{whole.decided || whole.state}</span>
          {would && would.refused > 0 && (
            <Figure value={would.refused} look="text-rust">
              cannot be undone so any more
            </Figure>
          )}
        </>
      }
      list={
        would ? (
          <UndoneList
            payments={would.payments}
            cursor={cursor}
            onCursor={(at) => change({ at })}
            empty="Nothing is named."
          />
        ) : (
          <p className="text-faint p-4">
            {asked.names.join(" · ")}
            {asked.count > asked.names.length && ` and ${asked.count - asked.names.length} more`}:{" "}
            {whole.decided ||
              "the check is outstanding again once somebody agrees; the bank may pay it then."}
          </p>
        )
      }
      bar={!whole.decided && <Answer asked={asked} would={would} />}
      slip={
        one && would ? (
          <div className="flex flex-col gap-4">
            <h2 className="text-base font-bold">
              {one.name}, {one.payee}
            </h2>
            <UndoEffect one={one} />
            <MonthsDrawn months={would.months} />
          </div>
        ) : (
          <p className="text-faint">What it was stands in the register and in the ledger.</p>
        )
      }
    />
  );
}

/** A second person agrees or does not; whoever asked can take it back. */
function Answer({ asked, would }: { asked: Schemas["UndoingView"]; would?: Schemas["UndoView"] }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [asking, setAsking] = useState<"agree" | "refuse">();
  const path = { path: { id: asked.id } };
  const what = would?.what ?? asked.names.join(" · ");
  const deed = would ? `${verb(would)} ${what}` : "Lift the stop";
  const done = async (words: string) => {
    await queries.invalidateQueries();
    toast(words);
    navigate("/approval");
  };
  if (!asked.mine && !asked.mayDecide)
    return (
      <span className="text-faint text-note">
        Somebody who approves, and neither asked nor prepared one of these payments, agrees or refuses.
      </span>
    );
  return (
    <>
      {asked.mayDecide && (
        <Button look="grave" disabled={(would?.refused ?? 0) > 0} onClick={() => setAsking("agree")}>
          {deed}…
        </Button>
      )}
      <Button onClick={() => setAsking("refuse")}>{asked.mine ? "Take it back…" : "Refuse…"}</Button>
      <DeedDialog
        open={asking === "agree"}
        onClose={() => setAsking(undefined)}
        title={`${deed}, asked by ${asked.who}`}
        deed={deed}
        grave
        wide
        run={async () => {
          await call(api.POST("/api/undoing/{id}/agree", { params: path }));
          await done(`Done: ${what}, as ${asked.who} asked.`);
        }}
      >
        <p className="mb-2">“{asked.reason}”</p>
        {would && <UndoAll view={would} />}
      </DeedDialog>
      <DeedDialog
        open={asking === "refuse"}
        onClose={() => setAsking(undefined)}
        title={asked.mine ? "Take back what you asked for" : `Refuse what ${asked.who} asked for`}
        deed={asked.mine ? "Take it back" : "Refuse it"}
        reason={asked.mine ? undefined : `Why not, for ${asked.who}`}
        run={async (why) => {
          await call(api.POST("/api/undoing/{id}/refuse", { params: path, body: { why } }));
          await done(asked.mine ? "Taken back; nothing was written." : "Refused; nothing was written.");
        }}
      >
        <p>Nothing is written, and the payments stand as they are.</p>
      </DeedDialog>
    </>
  );
}
