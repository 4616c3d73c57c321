import { useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { useDeed } from "../parts/useDeed";
import type { Batch, Deeds, Edits, Step } from "./draftDeeds";

const BESIDE = ["level", "work", "claim-slip", "claim-choices", "batch-total"];

/** Edits of one draft: in the order of the keys, each on the batch as the one before left it, each with its way back. */
export function useEdits(id: number, deeds: Deeds, shown: (batch: Batch) => void): Edits {
  const queries = useQueryClient();
  const key = useMemo(() => ["batch", id], [id]);
  const version = () => queries.getQueryData<Batch>(key)!.version;
  const took = async (next: Batch) => {
    queries.setQueryData(key, next);
    shown(next);
    await Promise.all(BESIDE.map((beside) => queries.invalidateQueries({ queryKey: [beside] })));
  };
  const doing = useDeed<Step, Batch>((step) => step.deed(version()), {
    line: `batch ${id}`,
    done: took,
    // somebody else may have been first: trying again is on what is there now
    failed: () => queries.refetchQueries({ queryKey: key }),
    said: (_, step) => step.said,
    undo: () => async () => took(await deeds.undo(version())),
  });
  return {
    run: (deed, said) => doing.run({ deed, said }),
    must: (deed, said) => doing.must({ deed, said }),
    busy: doing.busy,
  };
}
