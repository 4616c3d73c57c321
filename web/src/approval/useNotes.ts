import { useState } from "react";

type Notes = Record<string, string>;

/** What an approver noted at single payments, kept in this tab until the batch is answered. */
export function useNotes(round: string): [Notes, (claim: number, text: string) => void] {
  const key = `level-tally.notes-${round}`;
  const [notes, setNotes] = useState<Notes>(() => JSON.parse(sessionStorage.getItem(key) ?? "{}") as Notes);
  return [
    notes,
    (claim, text) => {
      const next = { ...notes };
      if (text.trim()) next[claim] = text;
      else delete next[claim];
      sessionStorage.setItem(key, JSON.stringify(next));
      setNotes(next);
    },
  ];
}
