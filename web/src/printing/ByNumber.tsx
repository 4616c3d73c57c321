import { useWatch } from "react-hook-form";
import { api, call, type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import type { useQueueQuestion } from "./useQueueQuestion";

interface Of {
  batch: number;
  /** The numbers that wait, in their order. */
  waiting: number[];
  onClose: () => void;
  onDone: (next: Schemas["PrintingView"]) => Promise<void>;
  whenItIsOver: ReturnType<typeof useQueueQuestion>["whenItIsOver"];
}

/** Answers for many sheets by the numbers on them, as they lie in the tray. */
export function ByNumber({ open, ...of }: Of & { open: boolean }) {
  return (
    <Dialog open={open} onClose={of.onClose} title={`Answer by number, ${of.waiting.length} sheets wait`}>
      <Numbers {...of} />
    </Dialog>
  );
}

function Numbers({ batch, waiting, onClose, onDone, whenItIsOver }: Of) {
  const form = useKeptForm(
    `by number ${batch}`,
    { good: "", spoiled: "", blank: "", why: "" },
    (typed) =>
      whenItIsOver((callBack) =>
        call(
          api.POST("/api/batches/{id}/answers-by-number", {
            params: { path: { id: batch } },
            body: { ...typed, callBack },
          }),
        ),
      ),
    {
      done: async (next) => {
        onClose();
        await onDone(next);
      },
    },
  );
  const spoiled = useWatch({ control: form.control, name: "spoiled" });
  const first = waiting[0];
  const last = waiting.at(-1);
  return (
    <Form form={form} label="By number" deed="Answer for these" onClose={onClose} className="gap-3">
      <p className="text-faint">
        <b className="font-mono">{first}</b> to <b className="font-mono">{last}</b> wait. Write numbers and
        ranges with commas, such as <span className="font-mono whitespace-nowrap">{`${first}-${last}`}</span>;
        what is not named goes on waiting.
      </p>
      <Entry name="good" label="Good" autoFocus look="font-mono" />
      <Entry name="spoiled" label="Spoiled" look="font-mono" />
      <Entry name="blank" label="Still blank" look="font-mono" />
      {spoiled.trim() && (
        <Entry name="why" label="What happened to the spoiled paper" rows={2} maxLength={200} />
      )}
    </Form>
  );
}
