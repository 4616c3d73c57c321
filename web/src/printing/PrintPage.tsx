import { useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Grid } from "../parts/Grid";
import { ChoiceWord } from "../parts/Word";
import { LevelStrip } from "../proof/LevelStrip";
import { ByNumber } from "./ByNumber";
import { Damaged } from "./Damaged";
import { OpenPages } from "./OpenPages";
import { PaperSays } from "./PaperSays";
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
  const [says, setSays] = useState<Schemas["SheetView"]>();
  const [opening, setOpening] = useState<{ run: number; what: string }>();
  const chosen = (id: number | string | undefined) =>
    printing.printers.find((one) => String(one.id) === String(id));
  const printer = chosen(values.printer) ?? chosen(printing.usualPrinter)!;
  const byDelivery = values.order === "delivery";
  const deeds = usePrintDeeds(batch.id, printer.id);
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
        <Sentence
          batch={batch}
          printing={printing}
          choosing={clerk}
          printer={printer}
          byDelivery={byDelivery}
          change={change}
        />
      }
      answer={<Figures batch={batch.id} printing={printing} />}
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
            printer={printer}
            all={all}
            chosen={chosenOf(all, selected, cursor)}
            deeds={deeds}
            onSpoil={(keys) => setDamaged({ keys, said: "SPOILED" })}
            onPrintAgain={(keys) => setDamaged({ keys, said: "AGAIN" })}
            onTakeOut={setOut}
            onRelease={setReleasing}
            onByNumber={() => setByNumber(true)}
            byDelivery={byDelivery}
            onPaperSays={(key) => setSays(all.sheets.get(key))}
            onOpen={setOpening}
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
          <TakeOut
            batch={batch.id}
            out={out}
            onClose={() => setOut(undefined)}
            onDone={deeds.show}
            whenItIsOver={deeds.whenItIsOver}
          />
          <ByNumber
            open={byNumber}
            batch={batch.id}
            waiting={[...all.waiting]
              .flatMap((key) => all.sheets.get(key)?.number ?? [])
              .sort((a, b) => a - b)}
            onClose={() => setByNumber(false)}
            onDone={deeds.show}
            whenItIsOver={deeds.whenItIsOver}
          />
          {deeds.question}
          <PaperSays batch={batch.id} sheet={says} onClose={() => setSays(undefined)} onDone={deeds.show} />
          <OpenPages
            of={opening && { batch: batch.id, printer, ...opening, onDone: deeds.look }}
            onClose={() => setOpening(undefined)}
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

/** What is printed, on what, in which order. */
function Sentence({
  batch,
  printing,
  choosing,
  printer,
  byDelivery,
  change,
}: {
  batch: Schemas["BatchView"];
  printing: Schemas["PrintingView"];
  choosing: boolean;
  printer: Schemas["PrinterView"];
  byDelivery: boolean;
  change: ReturnType<typeof useAddress>[1];
}) {
  return (
    <>
      Print <b>{batch.name}</b> from {printing.accountName}, <b>{batch.stateWords}</b>; the next number is{" "}
      <b className="font-mono">{printing.nextNumber}</b>
      {choosing && (
        <>
          , on{" "}
          <ChoiceWord
            name="Printer"
            text={printer.name}
            value={String(printer.id)}
            choices={printing.printers.map((one) => ({
              value: String(one.id),
              text: one.name,
              detail: one.way,
            }))}
            onChange={(id) => change({ printer: id })}
          />
          , in the order of{" "}
          <ChoiceWord
            name="Order"
            text={byDelivery ? "how they go" : "the batch"}
            value={byDelivery ? "delivery" : ""}
            choices={[
              { value: "", text: "the batch" },
              { value: "delivery", text: "how they go", detail: "mail, handed over, courier" },
            ]}
            onChange={(order) => change({ order: order || undefined })}
          />
        </>
      )}
      .
    </>
  );
}

/** What waits, and whose turn it is. */
function Figures({ batch, printing }: { batch: number; printing: Schemas["PrintingView"] }) {
  const behind = printing.unnumbered.filter((one) => one.why);
  // what the printer said matters while its sheets wait for it, or for an answer
  const said = printing.runs
    .filter((run) => run.given && run.sheets.some((sheet) => !sheet.answer))
    .at(-1)?.given;
  return (
    <>
      <Figure value={printing.toNumber}>to number, {printing.toNumberAmount}</Figure>
      <Figure value={printing.unanswered}>without an answer</Figure>
      {printing.onOwnNumber > 0 && (
        <Figure value={printing.onOwnNumber}>to print on their own numbers</Figure>
      )}
      {said && (
        <span className={said.outcome === "ACCEPTED" ? "text-faint" : "text-brass"}>{said.words}</span>
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
      {printing.runs.length > 0 && (
        <Link className="go ml-auto" to={`/print/${batch}/register`}>
          Register
        </Link>
      )}
    </>
  );
}
