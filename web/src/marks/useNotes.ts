import { useKept } from "../parts/useKept";

type Notes = Record<string, string>;

/** What an approver noted at single payments, kept in this tab until the batch is answered. */
export function useNotes(round: string): [Notes, (claim: number, text: string) => void] {
  const [notes, setNotes] = useKept<Notes>(`notes-${round}`, {});
  return [
    notes,
    (claim, text) => {
      const next = { ...notes };
      if (text.trim()) next[claim] = text;
      else delete next[claim];
      setNotes(next);
    },
  ];
}
