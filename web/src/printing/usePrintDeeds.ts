import { useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { useDeed } from "../parts/useDeed";
import { useQueueQuestion } from "./useQueueQuestion";
import type { ANSWERS } from "./sheetRows";

/** What somebody says of some sheets. */
export interface Said {
  keys: string[];
  said: keyof typeof ANSWERS;
  why: string;
}

/** What is done at the printer and beside the tray. */
export function usePrintDeeds(batch: number, printer: number) {
  const queries = useQueryClient();
  const { whenItIsOver, question } = useQueueQuestion();
  const show = async (next: Schemas["PrintingView"]) => {
    queries.setQueryData(["printing", batch], next);
    await Promise.all(
      [["work"], ["level", batch], ["batch", batch], ["batches"]].map((queryKey) =>
        queries.invalidateQueries({ queryKey }),
      ),
    );
  };
  const look = () => queries.invalidateQueries({ queryKey: ["printing", batch] });
  const path = { params: { path: { id: batch } } };
  // answers are taken in the order of the keys; nothing is sent to a printer twice by a second press
  const answering = useDeed(
    ({ keys, said, why }: Said) =>
      whenItIsOver((callBack) =>
        call(
          api.POST("/api/batches/{id}/answers", {
            ...path,
            body: { answers: keys.map((key) => ({ document: Number(key), answer: said, why })), callBack },
          }),
        ),
      ),
    { line: `sheets of ${batch}`, done: show, failed: look },
  );
  const sending = useDeed(
    (run: number) =>
      call(
        api.POST("/api/batches/{id}/runs/{run}/send", {
          params: { path: { id: batch, run } },
          body: { printer },
        }),
      ),
    { done: show, failed: look },
  );
  const printingAgain = useDeed(
    () => call(api.POST("/api/batches/{id}/print-on-own-numbers", { ...path, body: { printer } })),
    { done: show, failed: look },
  );
  const say = (keys: string[], said: "GOOD" | "BLANK") => {
    if (keys.length > 0) void answering.run({ keys, said, why: "" });
  };
  return { show, look, answering, sending, printingAgain, say, whenItIsOver, question };
}
