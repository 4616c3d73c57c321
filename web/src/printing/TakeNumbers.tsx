import { useEffect, useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { useDeed } from "../parts/useDeed";

const RENEW_MS = 60_000;

/** The turn, then the first number in the tray, then the numbers and the paper in one deed. */
export function TakeNumbers({
  batch,
  printing,
  onPrinted,
}: {
  batch: Schemas["BatchView"];
  printing: Schemas["PrintingView"];
  onPrinted: (next: Schemas["PrintingView"]) => Promise<void>;
}) {
  const [asking, setAsking] = useState<"turn" | "numbers">();
  const [first, setFirst] = useState("");
  const [fault, setFault] = useState("NONE");
  const [sheet, setSheet] = useState("2");
  const turn = printing.turn;
  const mine = turn?.mine && turn.forThisBatch ? turn : undefined;
  const account = { params: { path: { account: printing.account } } };
  const serial = mine?.serial;
  useEffect(() => {
    if (serial === undefined) return;
    const renew = () =>
      call(
        api.POST("/api/bank-accounts/{account}/turn/renew", {
          params: { path: { account: printing.account } },
          body: { serial },
        }),
      ).catch(() => undefined);
    const timer = setInterval(renew, RENEW_MS);
    return () => clearInterval(timer);
  }, [serial, printing.account]);
  const reload = async () =>
    onPrinted(await call(api.GET("/api/batches/{id}/printing", { params: { path: { id: batch.id } } })));
  const takeTurn = async (reason: string) => {
    await call(
      api.POST("/api/bank-accounts/{account}/turn", { ...account, body: { batch: batch.id, reason } }),
    );
    await reload();
  };
  const givingBack = useDeed(
    () =>
      call(
        api.POST("/api/bank-accounts/{account}/turn/give-back", { ...account, body: { serial: serial! } }),
      ),
    // somebody may have taken it over meanwhile: what is there now is shown either way
    { done: reload, failed: () => reload().catch(() => undefined) },
  );
  const count = printing.toNumber;
  const what = `${count} ${count === 1 ? "check" : "checks"}`;
  const typed = Number(first);
  const ahead = Number.isInteger(typed) && typed > printing.nextNumber;
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
      <DeedDialog
        open={asking === "numbers"}
        onClose={() => setAsking(undefined)}
        title={`Print ${what}, ${printing.toNumberAmount}`}
        deed={first ? `Print ${what} from ${first}` : `Print ${what}`}
        reason={ahead ? `Why the numbers ${printing.nextNumber} to ${typed - 1} are skipped` : undefined}
        run={async (reason) => {
          if (fault !== "NONE")
            await call(
              api.POST("/api/bank-accounts/{account}/stand-in-printer", {
                ...account,
                body: { fault: fault as "JAM" | "SMEAR" | "OUT_OF_PAPER", sheet: Number(sheet) },
              }),
            );
          const next = await call(
            api.POST("/api/batches/{id}/print", {
              params: { path: { id: batch.id } },
              body: { turn: mine?.serial ?? 0, firstNumber: Number(first || 0), reason },
            }),
          );
          setFirst("");
          setFault("NONE");
          await onPrinted(next);
        }}
      >
        <label className="flex flex-col gap-1">
          <span className="text-faint">
            First number in the tray; the next free one is <b className="font-mono">{printing.nextNumber}</b>
          </span>
          <input
            value={first}
            inputMode="numeric"
            pattern="[0-9]{1,12}"
            required
            autoFocus
            className="font-mono text-lg"
            onChange={(event) => setFirst(event.target.value.trim())}
          />
        </label>
        <details className="text-faint mt-3">
          <summary>The printer here is a stand-in. Let it go wrong</summary>
          <div className="mt-2 flex items-center gap-2">
            <select aria-label="Fault" value={fault} onChange={(event) => setFault(event.target.value)}>
              <option value="NONE">all goes well</option>
              <option value="JAM">jam: one sheet torn, the rest blank</option>
              <option value="SMEAR">one sheet smeared</option>
              <option value="OUT_OF_PAPER">out of paper: the rest blank</option>
            </select>
            at sheet
            <input
              aria-label="At sheet"
              className="w-16"
              value={sheet}
              onChange={(event) => setSheet(event.target.value)}
            />
          </div>
        </details>
      </DeedDialog>
    </>
  );
}
