import { Account } from "../parts/Account";
import type { Column } from "../parts/Grid";
import type { FilingLine } from "./useFiling";

const STEPS: Record<FilingLine["step"], { words: string; look: string }> = {
  WAITS: { words: "waits for a file", look: "text-faint" },
  KEPT_BACK: { words: "kept back", look: "text-brass" },
  IN_FILE: { words: "no answer yet", look: "text-brass" },
  TAKEN: { words: "the bank took it", look: "text-greentext" },
  POSTED: { words: "in the ledger", look: "text-faint" },
  UNDONE: { words: "reversed", look: "text-brass" },
};

/** How far a payment came, with what is in its way. */
export function Stands({ line }: { line: FilingLine }) {
  const { words, look } = STEPS[line.step];
  const refused = line.step === "WAITS" && line.why;
  return (
    <span className={refused ? "text-rust" : look}>
      {refused ? `refused: ${line.why}` : words}
      {line.step === "KEPT_BACK" && `: ${line.why}`}
    </span>
  );
}

export const COLUMNS: Column<FilingLine>[] = [
  {
    key: "reference",
    title: "Reference",
    width: "92px",
    cell: (line) => <span className="font-mono">{line.called}</span>,
  },
  { key: "payee", title: "Payee", width: "minmax(148px,1.1fr)", cell: (line) => line.payee },
  {
    key: "account",
    title: "Goes to",
    width: "minmax(250px,1fr)",
    cell: (line) => <Account words={line.bank} />,
  },
  { key: "amount", title: "Amount", width: "92px", right: true, cell: (line) => line.amount },
  {
    key: "file",
    title: "File",
    width: "44px",
    right: true,
    cell: (line) => line.file ?? "",
  },
  {
    key: "stands",
    title: "Where it stands",
    width: "minmax(150px,1.3fr)",
    cell: (line) => <Stands line={line} />,
  },
];
