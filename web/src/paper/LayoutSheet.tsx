import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from "react";
import type { Schemas } from "../api/client";
import { Face } from "../parts/Face";
import {
  blocksOn,
  edgesOf,
  rested,
  shifted,
  withBlock,
  without,
  type At,
  type Block,
  type Layout,
  type PartView,
} from "./measures";

const POINTS_A_MM = 72 / 25.4;
const STEP_MM = 0.5;
const FAR_MM = 5;

type View = Schemas["LayoutView"];

/** One of a part's places on the sheet; a second stub shows the same blocks again. */
interface Spot {
  part: PartView;
  top: number;
  again: boolean;
}

const spotsOf = (view: View, advice: boolean): Spot[] =>
  view.parts
    .filter((part) => (part.part === "ADVICE") === advice)
    .flatMap((part) => part.tops.map((top, i) => ({ part, top, again: i > 0 })));

/** All blocks of the sheets in the order they are read. */
export function blocksInOrder(layout: Layout, view: View): At[] {
  return view.parts.flatMap(({ part }) => blocksOn(layout, part).map((_, block) => ({ part, block })));
}

const same = (a: At | undefined, b: At) => a?.part === b.part && a.block === b.block;

/** A sheet at its true proportion, its blocks to be moved and sized by mouse or keys. */
export function LayoutSheet({
  view,
  layout,
  advice,
  chosen,
  choose,
  change,
  words,
}: {
  view: View;
  layout: Layout;
  advice: boolean;
  chosen: At | undefined;
  choose: (at: At) => void;
  change: (next: Layout, as?: string) => void;
  /** What a block is called. */
  words: (block: Block) => string;
}) {
  const page = advice ? view.advice : view.sheet;
  const sheet = useRef<HTMLDivElement>(null);
  const moving = useRef<{
    at: At;
    x: number;
    y: number;
    from: Block;
    size: boolean;
    part: PartView;
    as: string;
  }>(undefined);
  const wrong = (at: At) => view.findings.some((one) => one.part === at.part && one.block === at.block);
  const begin = (event: PointerEvent, at: At, block: Block, part: PartView, size: boolean) => {
    event.preventDefault();
    event.stopPropagation();
    choose(at);
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
    moving.current = {
      at,
      x: event.clientX,
      y: event.clientY,
      from: block,
      size,
      part,
      as: `pull ${event.timeStamp}`,
    };
  };
  const move = (event: PointerEvent) => {
    const under = moving.current;
    const width = sheet.current?.clientWidth;
    if (!under || !width) return;
    const scale = page.width / POINTS_A_MM / width;
    const by = { x: (event.clientX - under.x) * scale, y: (event.clientY - under.y) * scale };
    if (Math.hypot(by.x, by.y) < STEP_MM) return;
    const edges = edgesOf(blocksOn(layout, under.at.part), under.at.block, under.part);
    const next = under.size
      ? shifted(under.from, { width: by.x, height: by.y })
      : event.altKey
        ? shifted(under.from, by)
        : rested(shifted(under.from, by), edges);
    change(withBlock(layout, under.at, next), under.as);
  };
  const end = () => (moving.current = undefined);
  return (
    <div ref={sheet} className="relative w-full" onPointerMove={move} onPointerUp={end} onPointerCancel={end}>
      {!advice && <ClearBand view={view} />}
      <Face page={page} label={advice ? "The advice as it will be" : "The sheet as it will be"} />
      {spotsOf(view, advice).flatMap(({ part, top, again }) =>
        blocksOn(layout, part.part).map((block, i) => {
          const at = { part: part.part, block: i };
          const on = same(chosen, at);
          const place = {
            left: `${(block.x * POINTS_A_MM * 100) / page.width}%`,
            top: `${((top + block.y) * POINTS_A_MM * 100) / page.height}%`,
            width: `${(block.width * POINTS_A_MM * 100) / page.width}%`,
            height: `${(block.height * POINTS_A_MM * 100) / page.height}%`,
          };
          if (again)
            return (
              <span key={`${top} ${i}`} style={place} className="border-hair absolute border border-dotted" />
            );
          return (
            <Handle
              key={`${top} ${i}`}
              place={place}
              on={on}
              wrong={wrong(at)}
              name={`${words(block)}, on ${part.words}`}
              block={`${at.part} ${at.block}`}
              stands={isEmpty(block, page) ? words(block) : undefined}
              onFocus={() => choose(at)}
              onKey={(event) => {
                const next = keyed(event, layout, at, block);
                if (next) change(next);
              }}
              onMove={(event) => begin(event, at, block, part, false)}
              onSize={(event) => begin(event, at, block, part, true)}
            />
          );
        }),
      )}
    </div>
  );
}

/** Where nothing of a layout may stand, because the bank's machines read there. */
function ClearBand({ view }: { view: View }) {
  const check = view.parts.find(({ part }) => part === "CHECK");
  if (!check) return null;
  const percent = (millimetres: number) => `${(millimetres * POINTS_A_MM * 100) / view.sheet.height}%`;
  const from = check.free.y + check.free.height;
  return (
    <span
      aria-hidden
      className="text-faint pointer-events-none absolute inset-x-0 border-t border-dotted border-current px-2 text-mark"
      style={{ top: percent((check.tops[0] ?? 0) + from), height: percent(check.height - from) }}
    >
      clear band: the MICR line only
    </span>
  );
}

/** What a key does to a block: arrows move it, with Ctrl they size it, with Shift further; Delete takes it off. */
function keyed(event: KeyboardEvent, layout: Layout, at: At, block: Block): Layout | undefined {
  const far = event.shiftKey ? FAR_MM : STEP_MM;
  const [x, y] =
    { ArrowLeft: [-far, 0], ArrowRight: [far, 0], ArrowUp: [0, -far], ArrowDown: [0, far] }[event.key] ?? [];
  if (x !== undefined && y !== undefined) {
    event.preventDefault();
    return withBlock(layout, at, shifted(block, event.ctrlKey ? { width: x, height: y } : { x, y }));
  }
  if (event.key === "Delete") {
    event.preventDefault();
    return without(layout, at);
  }
  return undefined;
}

/** Where somebody signs by hand, or no logo is set: nothing is drawn, so its name stands there while the layout is made. */
function isEmpty(block: Block, page: Schemas["PageView"]): boolean {
  return (
    block.says === "SIGNATURE" ||
    block.says === "SECOND_SIGNATURE" ||
    (block.says === "LOGO" && page.pictures.length === 0)
  );
}

function Handle({
  place,
  on,
  wrong,
  name,
  block,
  stands,
  onFocus,
  onKey,
  onMove,
  onSize,
}: {
  place: Record<string, string>;
  on: boolean;
  wrong: boolean;
  name: string;
  block: string;
  stands: string | undefined;
  onFocus: () => void;
  onKey: (event: KeyboardEvent) => void;
  onMove: (event: PointerEvent) => void;
  onSize: (event: PointerEvent) => void;
}) {
  const self = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (on && document.activeElement !== self.current && document.activeElement?.closest("[data-handles]"))
      self.current?.focus();
  }, [on]);
  const look = wrong
    ? "border-rust bg-rust/10"
    : on
      ? "border-harbour bg-harbour/10"
      : "border-faint border-dashed";
  return (
    <button
      ref={self}
      type="button"
      aria-label={wrong ? `${name}: something is wrong with it` : name}
      aria-pressed={on}
      data-block={block}
      style={place}
      className={`absolute min-h-0 cursor-move touch-none border ${look} ${on ? "outline-harbour z-10 outline-2" : ""}`}
      onFocus={onFocus}
      onKeyDown={onKey}
      onPointerDown={onMove}
    >
      {stands && (
        <span aria-hidden className="text-faint text-mark absolute bottom-0 left-1 truncate">
          {stands}
        </span>
      )}
      {on && (
        <span
          aria-hidden
          onPointerDown={onSize}
          className="bg-harbour absolute -right-1.5 -bottom-1.5 size-3 cursor-nwse-resize"
        />
      )}
    </button>
  );
}
