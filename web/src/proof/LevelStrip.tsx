import { useQuery } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { Fragment } from "react";
import { api, call } from "../api/client";
import { Vial } from "../parts/Vial";

/** “1 payment”, “12 payments”, “12 on paper”. */
const worded = ({ words, count }: { words: string; count: number }) =>
  words.charAt(0).toLowerCase() + (count === 1 ? words.slice(1).replace(/s$/, "") : words.slice(1));

/** The level strip of one batch: five tallies, a sixth once its bank paid, and between neighbours a vial that shows whether they agree. */
export function LevelStrip({ batch }: { batch: number }) {
  const level = useQuery({
    queryKey: ["level", batch],
    queryFn: () => call(api.GET("/api/batches/{id}/level", { params: { path: { id: batch } } })),
  });
  return (
    <section
      aria-label="Level of the batch"
      className="border-ink flex h-9 shrink-0 items-center justify-between gap-2 overflow-x-auto border-t px-5 text-note whitespace-nowrap"
      data-level={level.data ? String(level.data.level) : undefined}
    >
      {level.data?.tallies.map((tally, i) => (
        <Fragment key={tally.step}>
          {i > 0 && <VialButton batch={batch} index={i - 1} vial={level.data.vials[i - 1]!} />}
          <span data-tally={tally.step}>
            <span className="text-faint">
              {i > 0 && tally.amount ? `${tally.count} ` : ""}
              {i > 0 && tally.amount ? worded(tally) : tally.words}
            </span>{" "}
            {tally.amount ? <b>{tally.amount}</b> : <span className="text-faint">not yet</span>}
            {tally.step === "LEDGER" && level.data.voidedCount > 0 && (
              <span className="text-brass">
                {" "}
                ({level.data.voidedCount} voided, {level.data.voided})
              </span>
            )}
          </span>
        </Fragment>
      ))}
    </section>
  );
}

function VialButton({
  batch,
  index,
  vial,
}: {
  batch: number;
  index: number;
  vial: { bubble: string; words: string; sentence: string };
}) {
  const off = vial.bubble !== "EMPTY" && vial.bubble !== "LEVEL";
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={vial.sentence}
        title={vial.sentence}
        className="flex min-h-6 items-center gap-1.5"
      >
        <Vial bubble={vial.bubble} />
        {off && <b className={vial.bubble === "WAITING" ? "text-faint" : "text-brass"}>{vial.words}</b>}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={8}
          className="bg-sheet border-ink z-20 max-h-80 max-w-md overflow-auto border p-3"
        >
          <p className="mb-2 font-semibold">{vial.sentence}.</p>
          {off && <Differences batch={batch} index={index} />}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Differences({ batch, index }: { batch: number; index: number }) {
  const rows = useQuery({
    queryKey: ["level", batch, index],
    queryFn: () =>
      call(api.GET("/api/batches/{id}/level/{vial}", { params: { path: { id: batch, vial: index } } })),
  });
  return (
    <table className="w-full">
      <tbody>
        {rows.data?.map((row, i) => (
          <tr key={i} className="border-hair border-t">
            <td className="py-1 pr-3 font-mono">{row.number ?? "–"}</td>
            <td className="pr-4">{row.payee}</td>
            <td className="pr-3 text-right">{row.left}</td>
            <td className="text-right">{row.right}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
