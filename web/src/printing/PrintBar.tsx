import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { isSpoilable, takenOut, type Chosen, type Sheets } from "./sheets";
import { TakeNumbers } from "./TakeNumbers";
import type { Out } from "./TakeOut";
import type { usePrintDeeds } from "./usePrintDeeds";

/** What a clerk can do now: answer for sheets, take payments out, print what waits. */
export function PrintBar({
  batch,
  printing,
  all,
  chosen,
  deeds,
  onSpoil,
  onPrintAgain,
  onTakeOut,
  onRelease,
  onByNumber,
}: {
  batch: Schemas["BatchView"];
  printing: Schemas["PrintingView"];
  all: Sheets;
  chosen: Chosen;
  deeds: ReturnType<typeof usePrintDeeds>;
  onSpoil: (keys: string[]) => void;
  onPrintAgain: (keys: string[]) => void;
  onTakeOut: (out: Out) => void;
  onRelease: (documents: number[]) => void;
  onByNumber: () => void;
}) {
  const { show, say, sending, printingAgain } = deeds;
  const allOpen = [...all.waiting];
  const goodOpen = allOpen.filter((key) => all.sheets.get(key)?.outcome === "PRINTED");
  const unsent = printing.runs.find((run) => !run.sent);
  const advice = printing.advices.find((one) => !one.sent);
  return (
    <>
      {(allOpen.length > 0 || [...all.sheets.keys()].some((key) => isSpoilable(all, key))) && (
        <>
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
      {chosen.blank.length > 0 && (
        <Button onClick={() => onRelease(chosen.blank.map(Number))}>
          Give up {chosen.blank.length === 1 ? "its number" : `${chosen.blank.length} numbers`}…
        </Button>
      )}
      {advice && (
        <Button disabled={sending.busy} onClick={() => void sending.run(advice.run)}>
          Print {advice.pages} {advice.pages === 1 ? "page" : "pages"} of advice on plain paper
        </Button>
      )}
      {unsent && (
        <Button look="deed" disabled={sending.busy} onClick={() => void sending.run(unsent.run)}>
          Print the {unsent.sheets.length} sheets whose numbers are taken
        </Button>
      )}
      {printing.onOwnNumber > 0 && (
        <Button look="deed" disabled={printingAgain.busy} onClick={() => void printingAgain.run()}>
          Print {printing.onOwnNumber} {printing.onOwnNumber === 1 ? "sheet" : "sheets"} on{" "}
          {printing.onOwnNumber === 1 ? "its own number" : "their own numbers"}
        </Button>
      )}
      {printing.toNumber > 0 && <TakeNumbers batch={batch} printing={printing} onPrinted={show} />}
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
