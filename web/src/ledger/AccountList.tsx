import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { Field } from "../parts/Field";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";
import { useKept } from "../parts/useKept";

type Row = Schemas["AccountRowView"];
const MOST_SHOWN = 300;

/** Brings in a list of accounts: looked at first, then brought in as far as it is good. */
export function AccountList({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Bring in a list of accounts" wide>
      <Body onClose={onClose} />
    </Dialog>
  );
}

function Body({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const [text, setText, forget] = useKept<string>("list of accounts", "");
  const [tried, setTried] = useState<{ of: string; rows: Row[] }>();
  const file = useRef<HTMLInputElement>(null);
  const trying = useDeed(
    (given: string) => call(api.POST("/api/ledger-accounts/list/try", { body: { text: given } })),
    { done: (rows, of) => setTried({ of, rows }) },
  );
  const bringing = useDeed(
    (given: string) => call(api.POST("/api/ledger-accounts/list", { body: { text: given } })),
    {
      done: async () => {
        forget();
        await queries.invalidateQueries();
        onClose();
      },
      said: (rows) => `Brought in: ${good(rows)} of ${rows.length} rows changed something.`,
    },
  );
  const rows = tried?.of === text ? tried.rows : undefined;
  const finding = trying.refused?.fields.text ?? bringing.refused?.fields.text;
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void (rows && good(rows) > 0 ? bringing : trying).must(text).catch(() => undefined);
      }}
    >
      <Field
        label="A code, a name and a kind in each line, with commas, semicolons or tabs between"
        finding={finding}
      >
        <textarea
          rows={6}
          autoFocus
          className="font-mono text-note"
          value={text}
          placeholder="5200,Chandlery,expense"
          onChange={(event) => setText(event.target.value)}
        />
      </Field>
      <input
        ref={file}
        type="file"
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        aria-label="A file with the list"
        onChange={(event) => void event.target.files?.[0]?.text().then(setText)}
      />
      {rows && <Rows rows={rows} />}
      {!finding && <Refusal deed={rows ? bringing : trying} />}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Not now</Button>
        {rows && good(rows) > 0 ? (
          <Button type="submit" look="deed" disabled={bringing.busy}>
            Bring in {good(rows)}
          </Button>
        ) : (
          <Button type="submit" look="deed" disabled={trying.busy || text.trim() === ""}>
            Look at it
          </Button>
        )}
      </div>
    </form>
  );
}

function good(rows: Row[]): number {
  return rows.filter((row) => row.outcome === "NEW" || row.outcome === "RENAMED").length;
}

/** Row by row what would become of it; what is refused first. */
function Rows({ rows }: { rows: Row[] }) {
  const sorted = [...rows].sort(
    (a, b) => Number(b.outcome === "REFUSED") - Number(a.outcome === "REFUSED") || a.line - b.line,
  );
  return (
    <div className="border-hair max-h-64 overflow-auto border" tabIndex={0}>
      <table className="w-full text-note">
        <tbody>
          {sorted.slice(0, MOST_SHOWN).map((row) => (
            <tr key={row.line} className="border-hair border-b">
              <td className="text-faint px-2 py-1 text-right">{row.line}</td>
              <td className="px-2 font-mono">{row.code}</td>
              <td className="px-2">{row.name}</td>
              <td className="px-2">{row.kind}</td>
              <td className={`px-2 ${row.outcome === "REFUSED" ? "text-rust" : ""}`}>
                {row.words}
                {row.why && `: ${row.why}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {sorted.length > MOST_SHOWN && (
        <p className="text-faint p-2">and {sorted.length - MOST_SHOWN} more rows</p>
      )}
    </div>
  );
}
