import { useMutation } from "@tanstack/react-query";
import { useCallback, useId, useRef } from "react";
import { toast } from "sonner";
import { Refused } from "../api/client";

const SAID_MS = 20_000;

/** Something that is done on the server, from the first press to its answer. */
export interface Deed<A> {
  /** Does it; a refusal is told beside the page until it is tried again or left. Answers whether it was done. */
  run: (given: A) => Promise<boolean>;
  /** Does it for a form that shows the refusal itself: throws what was refused. */
  must: (given: A) => Promise<void>;
  busy: boolean;
  /** Why it was refused last; undefined from the next try on. */
  refused: Refused | undefined;
  leave: () => void;
}

export interface DeedOptions<A, T> {
  /** Deeds of one line are done one after the other, in the order they were asked for; without a line a second press is ignored. */
  line?: string;
  /** What follows from its answer, such as showing it. */
  done?: (answer: T, given: A) => unknown;
  /** What follows from a refusal, such as looking at what is there now. */
  failed?: (refused: Refused, given: A) => unknown;
  /** What to say when it is done. */
  said?: (answer: T, given: A) => string | undefined;
  /** Takes it back; offered beside what was said. */
  undo?: (answer: T, given: A) => (() => Promise<unknown>) | undefined;
}

/** A failure that is no refusal is a fault of ours, told as one. */
export function asRefused(error: unknown): Refused {
  return error instanceof Refused
    ? error
    : new Refused(
        0,
        "browser",
        "Something went wrong in the browser. Look at what is shown, then try again.",
        {},
      );
}

/** The one way in which a screen changes anything. */
export function useDeed<A = void, T = unknown>(
  does: (given: A) => Promise<T>,
  { line, done, failed, said, undo }: DeedOptions<A, T> = {},
): Deed<A> {
  const under = useRef(false);
  const id = useId();
  const tries = useRef(0);
  const mutation = useMutation<T, unknown, A>({
    mutationFn: does,
    // asked for now or refused now; never kept back and done later by itself
    networkMode: "always",
    scope: line === undefined ? undefined : { id: line },
    onSuccess: async (answer, given) => {
      await done?.(answer, given);
      const words = said?.(answer, given);
      // the way back is the newest one's: after a deed that says nothing there is none to offer
      if (words) tell(words, undo?.(answer, given), `said ${id}`);
      else toast.dismiss(`said ${id}`);
    },
    onError: (error, given) => failed?.(asRefused(error), given),
  });
  const { mutateAsync, reset } = mutation;
  const free = line !== undefined;
  /** Answers whether it was begun: not while it is under way already, unless it waits in a line. */
  const once = useCallback(
    async (given: A): Promise<boolean> => {
      if (under.current && !free) return false;
      under.current = true;
      try {
        await mutateAsync(given);
        return true;
      } catch (error) {
        throw asRefused(error);
      } finally {
        under.current = false;
      }
    },
    [mutateAsync, free],
  );
  const must = useCallback(async (given: A) => void (await once(given)), [once]);
  const run = useCallback(
    (given: A): Promise<boolean> => {
      // each refusal stays by itself: what is done after it does not take it away
      const refusal = `refused ${id} ${tries.current++}`;
      const attempt = async (): Promise<boolean> => {
        try {
          const begun = await once(given);
          toast.dismiss(refusal);
          return begun;
        } catch (error) {
          toast.error(asRefused(error).message, {
            id: refusal,
            duration: Infinity,
            action: { label: "Try again", onClick: () => void attempt() },
            cancel: { label: "Leave it", onClick: () => undefined },
          });
          return false;
        }
      };
      return attempt();
    },
    [once, id],
  );
  return {
    run,
    must,
    busy: mutation.isPending,
    refused: mutation.error ? asRefused(mutation.error) : undefined,
    leave: reset,
  };
}

/** Says what was done, with the way back beside it where there is one. */
function tell(words: string, undo: (() => Promise<unknown>) | undefined, id: string) {
  const back = () =>
    undo?.().catch((error: unknown) =>
      toast.error(asRefused(error).message, {
        duration: Infinity,
        action: { label: "Try again", onClick: () => void back() },
        cancel: { label: "Leave it", onClick: () => undefined },
      }),
    );
  toast(words, {
    // the way back is the newest one's
    id,
    duration: SAID_MS,
    action: undo && { label: "Undo", onClick: () => void back() },
  });
}
