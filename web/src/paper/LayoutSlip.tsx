import type { Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { clock, longDate } from "../parts/dates";
import { Alignment, Loading } from "./Alignment";
import { blocksOn, withOneMore, type At, type Block, type Layout, type Part } from "./measures";

type Finding = Schemas["LayoutFinding"];
const HEADS: Record<Layout["columns"][number]["of"], string> = {
  REFERENCE: "Reference",
  DATE: "Date",
  SETTLES: "Settles",
  DISCOUNT: "Discount",
  PAID: "Paid",
};

/** What is wrong anywhere, what could be added, the columns of the lines, and the versions. */
export function LayoutSlip({
  page,
  draft,
  findings,
  words,
  advice,
  choose,
}: {
  page: Schemas["LayoutPage"];
  draft: { layout: Layout; change: (next: Layout) => void };
  findings: Finding[];
  words: (block: Block) => string;
  advice: boolean;
  choose: (at: At) => void;
}) {
  const { layout } = draft;
  const parts: Part[] = advice ? ["ADVICE"] : layout.stubs > 0 ? ["CHECK", "STUB"] : ["CHECK"];
  return (
    <>
      {findings.length > 0 && (
        <section aria-label="What is wrong">
          <h2 className="mb-1 text-base font-bold">What is wrong</h2>
          <ul>
            {findings.map((one, i) => {
              const block = blocksOn(layout, one.part)[one.block];
              return (
                <li key={i} className="border-hair border-b py-1">
                  {block ? (
                    <Button
                      look="bare"
                      className="min-h-6 py-0"
                      onClick={() => choose({ part: one.part, block: one.block })}
                    >
                      {words(block)}
                    </Button>
                  ) : null}{" "}
                  {one.words}
                </li>
              );
            })}
          </ul>
        </section>
      )}
      {parts.map((part) => (
        <Blocks key={part} page={page} part={part} draft={draft} words={words} choose={choose} />
      ))}
      <Columns layout={layout} change={draft.change} />
      <Alignment page={page} />
      <Loading page={page} />
      <section aria-label="Versions">
        <h2 className="mb-1 text-base font-bold">Versions</h2>
        {page.versions.length === 0 && (
          <p className="text-faint">Printed on the standard layout until one is kept.</p>
        )}
        <ul>
          {page.versions.map((one) => (
            <li key={one.version} className="border-hair border-b py-1 text-note">
              <b>{one.version}</b>, {one.state}, from {longDate(one.from)}: “{one.why}”
              <span className="text-faint block">
                {one.madeBy}, {clock(one.madeAt)}
              </span>
            </li>
          ))}
        </ul>
      </section>
    </>
  );
}

const NAMES: Record<Part, string> = { CHECK: "On the check", STUB: "On the stub", ADVICE: "On the advice" };
const ANEW = { face: "TEXT", size: 9, align: "LEFT", x: 12.7, y: 12, width: 60, height: 5 } as const;

/** What stands on a part, to be chosen by name, too, where it is too small to be hit; and what can still be put there. */
function Blocks({
  page,
  part,
  draft,
  words,
  choose,
}: {
  page: Schemas["LayoutPage"];
  part: Part;
  draft: { layout: Layout; change: (next: Layout) => void };
  words: (block: Block) => string;
  choose: (at: At) => void;
}) {
  const there = blocksOn(draft.layout, part);
  const more = page.blocks.filter(
    (one) =>
      one.parts.includes(part) &&
      (one.says === "TEXT" || one.says === "SIGNATURE" || !there.some((block) => block.says === one.says)),
  );
  return (
    <section aria-label={NAMES[part]}>
      <h2 className="mb-1 text-base font-bold">{NAMES[part]}</h2>
      <div className="flex flex-wrap gap-x-4">
        {there.map((block, i) => (
          <Button key={i} look="bare" className="min-h-6 py-0" onClick={() => choose({ part, block: i })}>
            {words(block)}
          </Button>
        ))}
      </div>
      <div className="mt-1 flex flex-wrap items-center gap-x-4">
        {more.length > 0 && <span className="text-faint">add</span>}
        {more.map((one) => (
          <Button
            key={one.says}
            look="bare"
            className="min-h-6 py-0"
            onClick={() => {
              const says = one.says as Block["says"];
              draft.change(
                withOneMore(draft.layout, part, {
                  ...ANEW,
                  says,
                  text: says === "TEXT" ? "Words of your own" : "",
                }),
              );
              choose({ part, block: there.length });
            }}
          >
            {one.words}
          </Button>
        ))}
      </div>
    </section>
  );
}

/** The columns of the lines: which, in which order, how wide beside each other. */
function Columns({ layout, change }: { layout: Layout; change: (next: Layout) => void }) {
  const { columns } = layout;
  const put = (next: Layout["columns"]) => change({ ...layout, columns: next });
  const missing = (Object.keys(HEADS) as (keyof typeof HEADS)[]).filter(
    (of) => !columns.some((column) => column.of === of),
  );
  return (
    <section aria-label="Columns of the lines">
      <h2 className="mb-1 text-base font-bold">Columns of the lines</h2>
      <ol>
        {columns.map((column, i) => (
          <li key={column.of} className="border-hair flex items-center gap-2 border-b py-1">
            <span className="flex-1">{HEADS[column.of]}</span>
            <input
              aria-label={`Share of ${HEADS[column.of]}`}
              type="text"
              inputMode="numeric"
              className="w-14 text-right"
              value={column.share}
              onChange={(event) => {
                const share = Number(event.target.value);
                if (Number.isInteger(share) && share > 0 && share < 1000)
                  put(columns.map((one, at) => (at === i ? { ...one, share } : one)));
              }}
            />
            <Button
              look="bare"
              className="min-w-6 px-1"
              aria-label={`${HEADS[column.of]} further left`}
              disabled={i === 0}
              onClick={() =>
                put([...columns.slice(0, i - 1), column, ...columns.slice(i - 1, i), ...columns.slice(i + 1)])
              }
            >
              ←
            </Button>
            <Button
              look="bare"
              className="min-w-6 px-1"
              aria-label={`Leave ${HEADS[column.of]} away`}
              disabled={columns.length === 1}
              onClick={() => put(columns.filter((_, at) => at !== i))}
            >
              ×
            </Button>
          </li>
        ))}
      </ol>
      {missing.map((of) => (
        <Button key={of} look="bare" onClick={() => put([...columns, { of, share: 15 }])}>
          Add {HEADS[of]}
        </Button>
      ))}
    </section>
  );
}
