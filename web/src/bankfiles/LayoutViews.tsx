import { Button } from "../parts/Button";
import type { useTried } from "./Compared";
import { FieldForm } from "./FieldForm";
import { FilePreview } from "./FilePreview";
import { LayoutTable } from "./LayoutTable";
import type { LayoutText, Place } from "./layoutText";
import { FileForm, RecordForm } from "./PartForms";

type Tried = ReturnType<typeof useTried>;

/** The layout as it goes out and comes in. */
export function AsText({
  text,
  may,
  keep,
  tried,
}: {
  text: string;
  may: boolean;
  keep: (text: string) => void;
  tried: Tried;
}) {
  return (
    <div className="grid min-h-0 flex-1 grid-cols-2 gap-4 overflow-hidden p-4">
      <label className="flex min-h-0 flex-col gap-1">
        <span className="text-faint text-note font-semibold">The layout</span>
        <textarea
          className="border-faint bg-sheet min-h-0 flex-1 resize-none border p-2 font-mono text-note"
          spellCheck={false}
          value={text}
          readOnly={!may}
          maxLength={200000}
          onChange={(event) => keep(event.target.value)}
        />
      </label>
      <section aria-label="What it makes of what waits" className="flex min-h-0 flex-col gap-2 overflow-auto">
        <h2 className="text-faint text-note font-semibold">What it makes of what waits</h2>
        <Wrong tried={tried} />
        {!tried.error && tried.data?.preview && <FilePreview preview={tried.data.preview} />}
      </section>
    </div>
  );
}

function Wrong({ tried }: { tried: Tried }) {
  return (
    <>
      {tried.error && (
        <p role="alert" className="text-rust">
          {tried.error.message}
        </p>
      )}
      {!tried.error &&
        tried.data?.wrong.map((one, i) => (
          <p key={i} role="alert" className="text-rust">
            {one.sentence}
          </p>
        ))}
    </>
  );
}

/** The layout as a table of its fields, and what it makes of what waits below. */
export function FieldByField({
  layout,
  tried,
  at,
  onAt,
}: {
  layout: LayoutText;
  tried: Tried;
  at: Place;
  onAt: (at: Place) => void;
}) {
  const wrong = tried.data?.wrong ?? [];
  const preview = tried.data?.preview;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="min-h-0 flex-1 overflow-auto" tabIndex={0} data-list>
        <LayoutTable layout={layout} preview={preview} wrong={wrong} at={at} onAt={onAt} />
      </div>
      <section
        aria-label="What it makes of what waits"
        className="border-ink flex max-h-72 flex-col gap-1 overflow-auto border-t px-4 py-2"
      >
        <Wrong tried={tried} />
        {!tried.error && preview && (
          <FilePreview
            preview={preview}
            meant={at.field >= 0 ? at : undefined}
            onMeant={(record, field) => onAt({ record, field })}
          />
        )}
        {!tried.error && tried.data && !preview && wrong.length === 0 && (
          <p className="text-faint">A file of the bank: lay a sample of it over the layout.</p>
        )}
      </section>
    </div>
  );
}

/** The form of what is chosen: a field, a record, or the file as a whole. */
export function PartForm({
  account,
  ...part
}: {
  layout: LayoutText;
  onChange: (next: LayoutText) => void;
  readOnly: boolean;
  at: Place;
  onAt: (at: Place) => void;
  account: number;
}) {
  const record = part.layout.records[part.at.record];
  if (record?.fields[part.at.field])
    return <FieldForm key={`${part.at.record} ${part.at.field}`} account={account} {...part} />;
  if (record)
    return (
      <div className="flex flex-col gap-4">
        <RecordForm {...part} />
        <Button onClick={() => part.onAt({ record: -1, field: -1 })}>The file as a whole</Button>
      </div>
    );
  return <FileForm layout={part.layout} onChange={part.onChange} readOnly={part.readOnly} />;
}
