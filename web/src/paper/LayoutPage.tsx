import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { flushSync } from "react-dom";
import { useParams } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { Loaded } from "../parts/Loaded";
import { useDeed } from "../parts/useDeed";
import { useRest } from "../parts/useRest";
import { BeginFrom } from "./BeginFrom";
import { BlockSlip } from "./BlockSlip";
import { KeepLayout } from "./KeepLayout";
import { LayoutSheet } from "./LayoutSheet";
import { LayoutSlip } from "./LayoutSlip";
import { LayoutWords } from "./LayoutWords";
import { blockAt, UNITS, withBlock, without, type At, type Block, type Layout, type Unit } from "./measures";
import { useDraft } from "./useDraft";

type Page = Schemas["LayoutPage"];

/** How the checks of a series stand on paper, to be seen and changed. */
export function LayoutPage() {
  const id = Number(useParams().id);
  const page = useQuery({
    queryKey: ["layouts", id],
    queryFn: () => call(api.GET("/api/series/{id}/layouts", { params: { path: { id } } })),
  });
  return <Loaded query={page}>{(data) => <Editor key={id} page={data} />}</Loaded>;
}

/** What somebody looks at beside the layout itself. */
function useLook() {
  const [unit, setUnit] = useState<Unit["name"]>("mm");
  const [sample, setSample] = useState("PAYMENT");
  const [advice, setAdvice] = useState(false);
  const [chosen, choose] = useState<At | undefined>();
  return { unit: UNITS[unit], setUnit, sample, setSample, advice, setAdvice, chosen, choose };
}

function Editor({ page }: { page: Page }) {
  const draft = useDraft(page.series, { layout: page.layout, newest: page.newest });
  const look = useLook();
  const [asking, setAsking] = useState<"keep" | "begin">();
  const now = JSON.stringify({ layout: draft.layout, sample: look.sample });
  const asked = useRest(now);
  const drawn = useQuery({
    queryKey: ["layout-drawn", page.series, asked],
    queryFn: ({ signal }) =>
      call(
        api.POST("/api/series/{id}/layouts/draw", {
          params: { path: { id: page.series } },
          body: JSON.parse(asked) as Schemas["DrawLayoutRequest"],
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    // each step of the making is a question of its own
    gcTime: 10_000,
  });
  const words = (block: Block) =>
    block.says === "TEXT"
      ? `text “${block.text}”`
      : (page.blocks.find((one) => one.says === block.says)?.words ?? "block");
  const block = look.chosen && blockAt(draft.layout, look.chosen);
  const findings = drawn.data?.findings ?? [];
  // what is drawn may still be the step before
  const right = asked === now && drawn.isSuccess && !drawn.isPlaceholderData && findings.length === 0;
  return (
    <Station
      title={`Layout of ${page.name}`}
      sentence={<LayoutWords page={page} layout={draft.layout} change={draft.change} {...look} />}
      answer={
        <>
          <Figure value={page.inForce || "standard"}>
            {page.inForce ? "is the version printed on now" : "layout is printed on now"}
          </Figure>
          <span className={findings.length > 0 || drawn.error ? "text-rust" : "text-greentext"}>
            {drawn.error
              ? "it could not be drawn"
              : findings.length === 0
                ? "nothing is wrong with it"
                : `${findings.length} ${findings.length === 1 ? "thing is" : "things are"} wrong`}
          </span>
          {draft.changed && <span className="text-brass">not kept yet</span>}
          <button type="button" className="go ml-auto min-h-6" onClick={() => look.setAdvice(!look.advice)}>
            {look.advice ? "Show check and stubs" : "Show the advice"}
          </button>
        </>
      }
      list={
        <div
          className="bg-paper min-h-0 flex-1 overflow-auto p-5"
          data-list
          data-handles
          onKeyDown={(event) => {
            const step = event.ctrlKey && { z: draft.undo, y: draft.redo }[event.key];
            if (step) {
              event.preventDefault();
              step();
            }
          }}
        >
          {drawn.error && (
            <p role="alert" className="callout-wrong mb-3">
              {drawn.error.message}
            </p>
          )}
          {drawn.data && (
            <div className="mx-auto max-w-[720px]">
              <LayoutSheet
                view={drawn.data}
                layout={draft.layout}
                words={words}
                change={draft.change}
                {...look}
              />
            </div>
          )}
        </div>
      }
      bar={<Bar page={page} draft={draft} right={right} ask={setAsking} />}
      slip={
        <div className="flex flex-col gap-6">
          {block && look.chosen ? (
            <BlockSlip
              key={`${look.chosen.part} ${look.chosen.block}`}
              block={block}
              name={words(block)}
              unit={look.unit}
              findings={findings
                .filter((one) => one.part === look.chosen?.part && one.block === look.chosen.block)
                .map((one) => one.words)}
              change={(change) => look.chosen && draft.change(withBlock(draft.layout, look.chosen, change))}
              remove={() => {
                if (look.chosen) draft.change(without(draft.layout, look.chosen));
                look.choose(undefined);
              }}
            />
          ) : (
            <p className="text-faint">
              Choose a block on the sheet, by mouse or with Tab. Arrows move it, with Shift further; with Ctrl
              they size it. Delete takes it off, Ctrl Z undoes. By mouse it rests at the edges of others, with
              Alt anywhere.
            </p>
          )}
          <LayoutSlip
            page={page}
            draft={draft}
            findings={findings}
            words={words}
            advice={look.advice}
            choose={(at) => {
              // its part is in sight first, then the keyboard is on it
              flushSync(() => {
                look.setAdvice(at.part === "ADVICE");
                look.choose(at);
              });
              document.querySelector<HTMLElement>(`[data-block="${at.part} ${at.block}"]`)?.focus();
            }}
          />
          <Asked page={page} draft={draft} asking={asking} close={() => setAsking(undefined)} />
        </div>
      }
    />
  );
}

function Asked({
  page,
  draft,
  asking,
  close,
}: {
  page: Page;
  draft: ReturnType<typeof useDraft>;
  asking: "keep" | "begin" | undefined;
  close: () => void;
}) {
  return (
    <>
      <Dialog
        open={asking === "keep"}
        onClose={close}
        title={`Keep version ${page.newest + 1} of ${page.name}`}
      >
        <KeepLayout page={page} draft={draft} onClose={close} />
      </Dialog>
      <Dialog open={asking === "begin"} onClose={close} title="Begin from another">
        <BeginFrom page={page} take={draft.change} onClose={close} />
      </Dialog>
    </>
  );
}

/** Fetches the test page of a layout and gives it to the browser as a file. */
async function testPage(id: number, printer: number, body: Layout): Promise<void> {
  const pdf = await call(
    api.POST("/api/series/{id}/layouts/test", {
      params: { path: { id }, query: { printer } },
      body,
      parseAs: "blob",
    }),
  );
  const link = document.createElement("a");
  link.href = URL.createObjectURL(pdf as unknown as Blob);
  link.download = `test-page-${id}.pdf`;
  link.click();
  URL.revokeObjectURL(link.href);
}

/** Undo, the test page, keeping. */
function Bar({
  page,
  draft,
  right,
  ask,
}: {
  page: Page;
  draft: ReturnType<typeof useDraft>;
  right: boolean;
  ask: (what: "keep" | "begin") => void;
}) {
  const testing = useDeed(() => testPage(page.series, page.alignments[0]?.printer ?? 0, draft.layout));
  const file = `data:application/json,${encodeURIComponent(JSON.stringify(draft.layout, null, 2))}`;
  return (
    <>
      <Button disabled={!draft.undo} onClick={draft.undo}>
        Undo
      </Button>
      <Button disabled={!draft.redo} onClick={draft.redo}>
        Do it again
      </Button>
      <button type="button" className="go min-h-6" onClick={() => ask("begin")}>
        Begin from another…
      </button>
      <a className="go inline-flex min-h-6 items-center" href={file} download={`layout-${page.series}.json`}>
        As a file
      </a>
      {draft.changed && (
        <button type="button" className="go min-h-6" onClick={draft.leave}>
          Throw the changes away
        </button>
      )}
      {page.mayKeep && (
        <span className="ml-auto flex gap-2">
          <Button disabled={!right || testing.busy} onClick={() => void testing.run()}>
            Test page
          </Button>
          <Button look="deed" disabled={!right || !draft.changed} onClick={() => ask("keep")}>
            Keep it…
          </Button>
        </span>
      )}
    </>
  );
}
