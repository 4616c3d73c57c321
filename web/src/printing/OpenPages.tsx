import { useEffect, useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";

interface Of {
  batch: number;
  printer: Schemas["PrinterView"];
  run: number;
  /** What lies on its pages, such as "12 checks". */
  what: string;
  onClose: () => void;
  onDone: () => Promise<unknown>;
}

/** The pages of a run for one's own printer: they come once, are printed, and are gone. */
export function OpenPages({ of, onClose }: { of: Omit<Of, "onClose"> | undefined; onClose: () => void }) {
  return (
    <Dialog open={of !== undefined} onClose={onClose} title={`Print ${of?.what ?? ""} on your own printer`}>
      {of && <Pages {...of} onClose={onClose} />}
    </Dialog>
  );
}

function Pages({ batch, printer, run, what, onClose, onDone }: Of) {
  const [pages, setPages] = useState<string>();
  const [opened, setOpened] = useState(false);
  const opening = useDeed(
    () =>
      call(
        api.POST("/api/batches/{id}/runs/{run}/open", {
          params: { path: { id: batch, run } },
          body: { printer: printer.id },
          parseAs: "blob",
        }),
      ),
    {
      done: async (pdf) => {
        setPages(URL.createObjectURL(pdf as unknown as Blob));
        await onDone();
      },
      failed: () => void onDone(),
    },
  );
  useEffect(() => () => (pages ? URL.revokeObjectURL(pages) : undefined), [pages]);
  return (
    <>
      <p className="mb-2">
        The pages come once, with numbers and MICR line: whoever asks for them after you gets none. Print them
        at their true size, not fitted to the page.
      </p>
      <p className="text-faint mb-4">
        If nothing comes out, answer <b>still blank</b>: those sheets open again on their own numbers.
      </p>
      <Refusal deed={{ refused: opening.refused, leave: opening.leave }} />
      <div className="flex justify-end gap-3">
        <Button onClick={onClose}>{pages ? "They are printed" : "Not now"}</Button>
        {pages ? (
          <a
            className={`inline-flex min-h-8 items-center px-3 font-bold ${opened ? "go" : "bg-harbour text-onharbour"}`}
            href={pages}
            target="_blank"
            rel="noreferrer"
            onClick={() => setOpened(true)}
          >
            Show {what} to print
          </a>
        ) : (
          <Button
            look="deed"
            disabled={opening.busy}
            onClick={() => void opening.must().catch(() => undefined)}
          >
            Get the pages
          </Button>
        )}
      </div>
    </>
  );
}
