import type { ReactNode } from "react";

/** The frame of every view: a sentence with its answer, a list, the slip beside it, and the strip where one batch is in view. */
export function Station({
  title,
  sentence,
  answer,
  list,
  bar,
  slip,
  strip,
}: {
  title: string;
  sentence: ReactNode;
  answer: ReactNode;
  list: ReactNode;
  bar?: ReactNode;
  slip?: ReactNode;
  strip?: ReactNode;
}) {
  return (
    <>
      <h1 className="sr-only">{title}</h1>
      <section aria-label="Criteria" className="border-hair bg-sheet shrink-0 border-b px-5 py-2.5">
        <p className="text-sentence leading-8 max-[640px]:text-base max-[640px]:leading-6">{sentence}</p>
        <div className="text-faint flex min-h-6 flex-wrap items-center gap-x-5 text-note">{answer}</div>
      </section>
      <div className="station-body flex min-h-0 flex-1">
        <section aria-label="List" className="station-list bg-sheet flex min-h-0 min-w-0 flex-1 flex-col">
          {list}
          {bar && (
            <div className="station-bar border-ink flex min-h-[46px] shrink-0 flex-wrap items-center gap-x-5 gap-y-1 border-t px-4 py-1.5">
              {bar}
            </div>
          )}
        </section>
        {slip && (
          <section
            aria-label="Slip"
            data-slip
            tabIndex={0}
            className="station-slip border-hair w-[404px] shrink-0 overflow-auto border-l p-4"
          >
            {slip}
          </section>
        )}
      </div>
      {strip && <div className="station-strip contents">{strip}</div>}
    </>
  );
}

/** A figure with its word, in the answer line. */
export function Figure({
  value,
  children,
  look = "",
}: {
  value: ReactNode;
  children?: ReactNode;
  look?: string;
}) {
  return (
    <span className={look}>
      <b className={look === "" ? "text-ink" : ""}>{value}</b> {children}
    </span>
  );
}
