import { useState } from "react";
import type { Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { AskNumbers } from "./AskNumbers";
import { useTurn } from "./useTurn";

/** The turn, then the first number in the tray, then the numbers and the paper in one deed. */
export function TakeNumbers({
  batch,
  printing,
  printer,
  part,
  byDelivery,
  onPrinted,
}: {
  batch: Schemas["BatchView"];
  printing: Schemas["PrintingView"];
  printer: Schemas["PrinterView"];
  /** The payments among those that wait which somebody selected. */
  part: number[];
  byDelivery: boolean;
  onPrinted: (next: Schemas["PrintingView"]) => Promise<void>;
}) {
  const [asking, setAsking] = useState<"turn" | "numbers" | "part">();
  const { turn, mine, takeTurn, givingBack } = useTurn(batch.id, printing, onPrinted);
  const count = printing.toNumber;
  const what = `${count} ${count === 1 ? "check" : "checks"}`;
  return (
    <>
      {!mine && (
        <Button
          look="deed"
          className="ml-auto"
          disabled={Boolean(turn && !turn.mine && !turn.idle)}
          title={turn && !turn.mine && !turn.idle ? `${turn.holder} has the turn` : undefined}
          onClick={() => setAsking("turn")}
        >
          Take the turn to print {what}…
        </Button>
      )}
      {mine && (
        <>
          <Button
            look="bare"
            className="ml-auto"
            disabled={givingBack.busy}
            onClick={() => void givingBack.run()}
          >
            Give the turn back
          </Button>
          {part.length > 0 && part.length < count && (
            <Button onClick={() => setAsking("part")}>Print the {part.length} selected…</Button>
          )}
          <Button look="deed" onClick={() => setAsking("numbers")}>
            Print {what}…
          </Button>
        </>
      )}
      <DeedDialog
        open={asking === "turn"}
        onClose={() => setAsking(undefined)}
        title={`Take the turn to print from ${printing.accountName}`}
        deed="Take the turn"
        reason={turn && !turn.mine ? `${turn.holder} left it quiet; say why you take it over` : undefined}
        run={takeTurn}
      >
        <p>
          While you have it, nobody else takes numbers from this account. It ends by itself when the numbers
          are taken, and can be taken over after a quarter of an hour of quiet.
        </p>
      </DeedDialog>
      <AskNumbers
        batch={batch.id}
        printing={printing}
        turn={mine?.serial ?? 0}
        printer={printer}
        byDelivery={byDelivery}
        claims={asking === "part" ? part : []}
        what={asking === "part" ? `${part.length} of ${what}` : what}
        open={asking === "numbers" || asking === "part"}
        onClose={() => setAsking(undefined)}
        onPrinted={onPrinted}
      />
    </>
  );
}
