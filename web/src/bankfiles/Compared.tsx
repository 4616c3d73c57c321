import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Field } from "../parts/Field";
import { useKept } from "../parts/useKept";
import { useRest } from "../parts/useRest";
import { ChoiceWord } from "../parts/Word";
import type { LayoutText } from "./layoutText";

type Tried = Schemas["TriedBankLayoutView"];
type Line = Schemas["SampleLine"];

/** What a layout makes of what waits of an account. */
export function useTried(account: number, text: string | undefined) {
  return useQuery({
    queryKey: ["bank-layout-tried", account, text],
    enabled: text !== undefined,
    queryFn: () => call(api.POST("/api/bank-layouts/try", { body: { account, text: text! } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** What two versions make of the same events, where it is not the same. */
export function Beside({
  version,
  versions,
  account,
  mine,
}: {
  version: Schemas["BankLayoutVersion"];
  versions: Schemas["BankLayoutVersion"][];
  account: number;
  mine: Tried | undefined;
}) {
  const others = versions.filter((one) => one.use === version.use);
  const [id, setId] = useState<number>();
  const other =
    others.find((one) => one.id === id) ??
    others.find((one) => one.name === version.name && one.id !== version.id) ??
    others.find((one) => one.id !== version.id) ??
    version;
  const text = useQuery({
    queryKey: ["bank-layout", other.id],
    queryFn: () => call(api.GET("/api/bank-layouts/{id}", { params: { path: { id: other.id } } })),
  });
  const theirs = useTried(account, text.data?.text);
  // what is still on its way differs from nothing
  const both = Boolean(mine) && Boolean(theirs.data) && !theirs.isPlaceholderData;
  const left = (both && mine?.preview?.records) || [];
  const right = (both && theirs.data?.preview?.records) || [];
  const differ = Array.from({ length: Math.max(left.length, right.length) }, (_, i) => i).filter(
    (i) => left[i]?.text !== right[i]?.text,
  );
  return (
    <div className="min-h-0 flex-1 overflow-auto p-4" tabIndex={0} data-list>
      <p className="mb-3">
        Beside{" "}
        <ChoiceWord
          name="The other version"
          text={`${other.name}, version ${other.version}`}
          value={String(other.id)}
          choices={others.map((one) => ({
            value: String(one.id),
            text: `${one.name}, version ${one.version}`,
          }))}
          onChange={(value) => setId(Number(value))}
        />
        {!both
          ? "."
          : differ.length === 0
            ? ": both make the same of what waits."
            : `: ${differ.length} of ${Math.max(left.length, right.length)} records differ.`}
      </p>
      {theirs.data?.preview === undefined && theirs.data && (
        <p className="text-rust">{theirs.data.wrong[0]?.sentence ?? "It cannot be tried on what waits."}</p>
      )}
      <ul className="font-mono text-note">
        {differ.slice(0, 100).map((i) => (
          <li key={i} className="border-hair border-t py-1 whitespace-pre">
            <span className="text-faint">{String(i + 1).padStart(4)} this </span>
            {left[i]?.text ?? ""}
            {"\n"}
            <span className="text-faint">{"".padStart(4)} that </span>
            <Marked text={right[i]?.text ?? ""} beside={left[i]?.text ?? ""} />
          </li>
        ))}
      </ul>
    </div>
  );
}

/** The characters that are not those beside them. */
function Marked({ text, beside }: { text: string; beside: string }) {
  const parts: { text: string; other: boolean }[] = [];
  [...text].forEach((one, i) => {
    const other = one !== beside[i];
    const last = parts.at(-1);
    if (last?.other === other) last.text += one;
    else parts.push({ text: one, other });
  });
  return (
    <>
      {parts.map((part, i) => (
        <span key={i} className={part.other ? "bg-cursor text-rust" : ""}>
          {part.text}
        </span>
      ))}
    </>
  );
}

/** A bank's own file, pasted, laid over the layout. */
export function Sample({ text, account, layout }: { text: string; account: number; layout: LayoutText }) {
  const [sample, keep] = useKept<string>(`bank sample ${layout.name}`, "");
  const rested = useRest(sample);
  const laid = useQuery({
    queryKey: ["bank-sample", text, account, rested],
    enabled: rested.trim() !== "",
    queryFn: () => call(api.POST("/api/bank-layouts/sample", { body: { text, account, sample: rested } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const lines = rested.trim() === "" ? [] : (laid.data ?? []);
  const wrong = lines.filter((one) => one.differences.length > 0);
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto p-4" tabIndex={0} data-list>
      <Field label="A sample of the bank, pasted">
        <textarea
          rows={6}
          className="font-mono text-note whitespace-pre"
          spellCheck={false}
          maxLength={200000}
          value={sample}
          onChange={(event) => keep(event.target.value)}
        />
      </Field>
      {laid.error && (
        <p role="alert" className="text-rust">
          {laid.error.message}
        </p>
      )}
      {lines.length > 0 && (
        <p role="status">
          {wrong.length === 0
            ? `All ${lines.length} lines are as the layout says.`
            : `${wrong.length} of ${lines.length} lines are not as the layout says.`}
        </p>
      )}
      <ul>
        {lines.map((one) => (
          <Laid key={one.line} one={one} layout={layout} />
        ))}
      </ul>
    </div>
  );
}

function Laid({ one, layout }: { one: Line; layout: LayoutText }) {
  const record = layout.records[one.kind];
  const off = new Set(one.differences.map((differs) => differs.field));
  const rest = one.spans.at(-1)?.to ?? 0;
  return (
    <li className="border-hair border-t py-1">
      <div className="overflow-x-auto font-mono text-note whitespace-pre">
        <span className="text-faint">{String(one.line).padStart(4)} </span>
        {one.spans.map((span, i) => (
          <span key={i}>
            {i > 0 && one.text.slice(one.spans[i - 1]!.to, span.from)}
            <span
              title={record?.fields[i]?.name}
              className={off.has(i + 1) ? "bg-rust text-sheet" : i % 2 === 0 ? "bg-cursor" : ""}
            >
              {one.text.slice(span.from, span.to)}
            </span>
          </span>
        ))}
        <span className="text-rust">{one.text.slice(rest)}</span>
      </div>
      {one.differences.map((differs, i) => (
        <div key={i} className="text-rust text-note pl-8">
          {differs.name && <b>{differs.name}: </b>}
          {differs.sentence}
        </div>
      ))}
    </li>
  );
}
