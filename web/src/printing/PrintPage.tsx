import { useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { useParams } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Grid } from "../parts/Grid";
import { LevelStrip } from "../proof/LevelStrip";
import { ByNumber } from "./ByNumber";
import { Damaged } from "./Damaged";
import { PrintBar } from "./PrintBar";
import { chosenOf, itemsOf, sheetsOf } from "./sheets";
import { ReleaseBlanks, TakeOut, type Out } from "./TakeOut";
import { usePrintDeeds } from "./usePrintDeeds";
import { usePrinting } from "./usePrinting";
import { COLUMNS, KeptBack, Tray } from "./sheetRows";

/** Print a batch: the turn, the numbers, the tray sheet by sheet, and an answer for each. */
export function PrintPage() {
  const id = Number(useParams().id);
  const batch = useQuery({
    queryKey: ["batch", id],
    queryFn: () => call(api.GET("/api/batches/{id}", { params: { path: { id } } })),
  });
  const printing = usePrinting(id);
  return (
    <Loaded query={batch}>
      {(of) => <Loaded query={printing}>{(data) => <View key={id} batch={of} printing={data} />}</Loaded>}
    </Loaded>
  );
}

function View({ batch, printing }: { batch: Schemas["BatchView"]; printing: Schemas["PrintingView"] }) {
  const session = useSession();
  const [values, change] = useAddress();
  const [selected, setSelected] = useState<Set<string>>(new Set());
  const [damaged, setDamaged] = useState<{ keys: string[]; said: "SPOILED" | "AGAIN" }>();
  const [out, setOut] = useState<Out>();
  const [releasing, setReleasing] = useState<number[]>();
  const [byNumber, setByNumber] = useState(false);
  const deeds = usePrintDeeds(batch.id);
  const cursor = values.at;
  const all = sheetsOf(printing);
  const clerk = session.roles.includes("CLERK");
  const answer = (keys: string[]) =>
    deeds.say(
      keys.filter((key) => all.waiting.has(key)),
      "GOOD",
    );
  return (
    <Station
      title={`Print ${batch.name}`}
      sentence={
        <>
          Print <b>{batch.name}</b> from {printing.accountName}, <b>{batch.stateWords}</b>; the next number is{" "}
          <b className="font-mono">{printing.nextNumber}</b>.
        </>
      }
      answer={<Figures printing={printing} />}
      list={
        <Grid
          list="sheets"
          label="Sheets"
          items={itemsOf(printing, all)}
          columns={COLUMNS}
          cursor={cursor}
          onCursor={(key) => change({ at: key })}
          selected={selected}
          onSelect={setSelected}
          onSpace={clerk ? answer : undefined}
          empty="Nothing to print, and no sheet yet."
        />
      }
      bar={
        clerk && (
          <PrintBar
            batch={batch}
            printing={printing}
            all={all}
            chosen={chosenOf(all, selected, cursor)}
            deeds={deeds}
            onSpoil={(keys) => setDamaged({ keys, said: "SPOILED" })}
            onPrintAgain={(keys) => setDamaged({ keys, said: "AGAIN" })}
            onTakeOut={setOut}
            onRelease={setReleasing}
            onByNumber={() => setByNumber(true)}
          />
        )
      }
      slip={
        cursor && all.unnumbered.has(cursor) ? (
          <KeptBack payment={all.unnumbered.get(cursor)!} />
        ) : (
          <Tray sheet={cursor ? all.sheets.get(cursor) : undefined} />
        )
      }
      strip={
        <>
          <LevelStrip batch={batch.id} />
          <TakeOut batch={batch.id} out={out} onClose={() => setOut(undefined)} onDone={deeds.show} />
          <ByNumber
            open={byNumber}
            batch={batch.id}
            waiting={[...all.waiting]
              .flatMap((key) => all.sheets.get(key)?.number ?? [])
              .sort((a, b) => a - b)}
            onClose={() => setByNumber(false)}
            onDone={deeds.show}
          />
          <ReleaseBlanks
            batch={batch.id}
            documents={releasing}
            onClose={() => setReleasing(undefined)}
            onDone={deeds.show}
          />
          <Damaged
            sheets={damaged?.keys.map((key) => all.sheets.get(key)?.number) ?? []}
            said={damaged?.said}
            onClose={() => setDamaged(undefined)}
            run={(why) =>
              deeds.answering.must({ keys: damaged?.keys ?? [], said: damaged?.said ?? "SPOILED", why })
            }
          />
        </>
      }
    />
  );
}

/** What waits, and whose turn it is. */
function Figures({ printing }: { printing: Schemas["PrintingView"] }) {
  const behind = printing.unnumbered.filter((one) => one.why);
  return (
    <>
      <Figure value={printing.toNumber}>to number, {printing.toNumberAmount}</Figure>
      <Figure value={printing.unanswered}>without an answer</Figure>
      {printing.onOwnNumber > 0 && (
        <Figure value={printing.onOwnNumber}>to print on their own numbers</Figure>
      )}
      {behind.length > 0 && (
        <Figure value={behind.length} look="text-brass">
          kept back
        </Figure>
      )}
      {printing.turn && (
        <span className="text-brass">
          <b>{printing.turn.mine ? "You have" : `${printing.turn.holder} has`} the turn</b>
          {printing.turn.mine ? "" : `, quiet for ${printing.turn.idleMinutes} minutes`}
        </span>
      )}
    </>
  );
}
