import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Goes } from "./Goes";
import { isSpoilable, takenOut, type Chosen, type Sheets } from "./sheets";
import { TakeNumbers } from "./TakeNumbers";
import type { Out } from "./TakeOut";
import type { usePrintDeeds } from "./usePrintDeeds";

/** What a clerk can do now: answer for sheets, take payments out, print what waits. */
export function PrintBar({
  batch,
  printing,
  printer,
  all,
  chosen,
  deeds,
  onSpoil,
  onPrintAgain,
  onTakeOut,
  onRelease,
  onByNumber,
  byDelivery,
  onPaperSays,
  onOpen,
}: {
  batch: Schemas["BatchView"];
  printing: Schemas["PrintingView"];
  printer: Schemas["PrinterView"];
  all: Sheets;
  chosen: Chosen;
  deeds: ReturnType<typeof usePrintDeeds>;
  onSpoil: (keys: string[]) => void;
  onPrintAgain: (keys: string[]) => void;
  onTakeOut: (out: Out) => void;
  onRelease: (documents: number[]) => void;
  onByNumber: () => void;
  byDelivery: boolean;
  onPaperSays: (key: string) => void;
  onOpen: (pages: { run: number; what: string }) => void;
}) {
  const { show, say, sending, printingAgain } = deeds;
  const allOpen = [...all.waiting];
  // only of the stand-in is known what lies in its tray
  const goodOpen = allOpen.filter((key) => all.sheets.get(key)?.outcome === "PRINTED");
  const unsent = printing.runs.find((run) => !run.sent);
  const advice = printing.advices.find((one) => !one.sent);
  const own = printer.kind === "OWN";
  const send = (run: number, what: string) => (own ? onOpen({ run, what }) : void sending.run(run));
  const pages = (count: number) => `${count} ${count === 1 ? "page" : "pages"} of advice`;
  return (
    <>
      {(allOpen.length > 0 || [...all.sheets.keys()].some((key) => isSpoilable(all, key))) && (
        <>
          {goodOpen.length === 0 && allOpen.length > 0 && (
            <Button look="deed" onClick={() => say(allOpen, "GOOD")}>
              {allOpen.length === 1 ? "The sheet is good" : `All ${allOpen.length} are good`}
            </Button>
          )}
          {goodOpen.length > 0 && (
            <Button look="deed" onClick={() => say(goodOpen, "GOOD")}>
              {goodOpen.length} printed well: all good
            </Button>
          )}
          <Button disabled={chosen.open.length === 0} onClick={() => say(chosen.open, "GOOD")}>
            Good
          </Button>
          <Button disabled={!chosen.spoilable} onClick={() => onSpoil(chosen.keys)}>
            Spoiled…
          </Button>
          {printing.sameNumberReprint && (
            <Button disabled={chosen.open.length === 0} onClick={() => onPrintAgain(chosen.open)}>
              Print again…
            </Button>
          )}
          <Button disabled={chosen.open.length === 0} onClick={() => say(chosen.open, "BLANK")}>
            Still blank
          </Button>
          {printing.paperHasNumbers && chosen.open.length === 1 && (
            <Button onClick={() => onPaperSays(chosen.open[0]!)}>The paper says…</Button>
          )}
          {allOpen.length > 1 && <Button onClick={onByNumber}>By number…</Button>}
        </>
      )}
      {printing.printable && (
        <Button
          disabled={chosen.removable.length === 0}
          onClick={() => onTakeOut(takenOut(all, chosen.removable))}
        >
          Take out…
        </Button>
      )}
      {printing.printable && chosen.removable.length > 0 && (
        <Goes batch={batch.id} claims={chosen.claims} onDone={show} />
      )}
      {chosen.blank.length > 0 && (
        <Button onClick={() => onRelease(chosen.blank.map(Number))}>
          Give up {chosen.blank.length === 1 ? "its number" : `${chosen.blank.length} numbers`}…
        </Button>
      )}
      {advice && (
        <Button disabled={sending.busy} onClick={() => send(advice.run, pages(advice.pages))}>
          Print {pages(advice.pages)} on plain paper
        </Button>
      )}
      {unsent && (
        <Button
          look="deed"
          disabled={sending.busy}
          onClick={() => send(unsent.run, sheetsInWords(unsent.sheets.length))}
        >
          {own ? "Open" : "Print"} the {sheetsInWords(unsent.sheets.length)} whose{" "}
          {unsent.sheets.length === 1 ? "number is" : "numbers are"} taken{own ? "…" : ""}
        </Button>
      )}
      {printing.onOwnNumber > 0 && (
        <Button look="deed" disabled={printingAgain.busy} onClick={() => void printingAgain.run()}>
          Print {printing.onOwnNumber} {printing.onOwnNumber === 1 ? "sheet" : "sheets"} on{" "}
          {printing.onOwnNumber === 1 ? "its own number" : "their own numbers"}
        </Button>
      )}
      {printing.toNumber > 0 && (
        <TakeNumbers
          batch={batch}
          printing={printing}
          printer={printer}
          part={chosen.ready}
          byDelivery={byDelivery}
          onPrinted={show}
        />
      )}
      {printing.loading && printing.runs.length > 0 && allOpen.length === 0 && (
        <span className="text-brass">Take {printing.loading} out of the printer.</span>
      )}
      {all.unnumbered.size === 0 && printing.runs.length > 0 && allOpen.length === 0 && (
        <Link to={`/post?at=${batch.id}`} className="go ml-auto font-bold">
          Every sheet is answered: go to posting
        </Link>
      )}
    </>
  );
}

function sheetsInWords(count: number): string {
  return `${count} ${count === 1 ? "sheet" : "sheets"}`;
}
