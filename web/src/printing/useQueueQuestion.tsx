import { useState } from "react";
import { Refused } from "../api/client";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";

interface Asked {
  sentence: string;
  answer: (callBack: boolean) => void;
}

/** What is to be printed anew must not come out of a queue after all: where it may, somebody looks and says so first. */
export function useQueueQuestion() {
  const [asked, setAsked] = useState<Asked>();
  /** Does something that is refused while a printer may still print what it is about. */
  async function whenItIsOver<T>(does: (callBack: boolean) => Promise<T>): Promise<T> {
    try {
      return await does(false);
    } catch (refused) {
      if (!(refused instanceof Refused) || refused.code !== "may-still-print") throw refused;
      const callBack = await new Promise<boolean>((answer) =>
        setAsked({ sentence: refused.message, answer }),
      );
      setAsked(undefined);
      if (!callBack) throw refused;
      return does(true);
    }
  }
  const question = (
    <Dialog
      open={asked !== undefined}
      onClose={() => asked?.answer(false)}
      title="The printer may still have these sheets"
    >
      <p className="mb-2">{asked?.sentence}</p>
      <p className="text-faint mb-4">
        When nothing more comes out, go on: what is still in its queue is taken out of it, as far as the queue
        answers, so that no number is on two sheets.
      </p>
      <div className="flex justify-end gap-3">
        <Button onClick={() => asked?.answer(false)}>Not now</Button>
        <Button look="deed" onClick={() => asked?.answer(true)}>
          Nothing more comes out: answer
        </Button>
      </div>
    </Dialog>
  );
  return { whenItIsOver, question };
}
