import type { Schemas } from "../api/client";

export type Layout = Schemas["LayoutFile"];
export type Block = Schemas["BlockFile"];
export type Part = Schemas["PartView"]["part"];
export type PartView = Schemas["PartView"];

/** A block of a layout: the part it stands on, and which one of it. */
export interface At {
  part: Part;
  block: number;
}

/** A unit people measure in; layouts are in millimetres. */
export interface Unit {
  name: "mm" | "in";
  millimetres: number;
  decimals: number;
}

export const UNITS: Record<Unit["name"], Unit> = {
  mm: { name: "mm", millimetres: 1, decimals: 2 },
  in: { name: "in", millimetres: 25.4, decimals: 3 },
};

/** Thousandths, as the file keeps them. */
const rounded = (millimetres: number) => Math.round(millimetres * 1000) / 1000;

export function shown(millimetres: number, unit: Unit): string {
  return String(Number((millimetres / unit.millimetres).toFixed(unit.decimals)));
}

/** What was typed, in millimetres; undefined when it is no length. */
export function typed(text: string, unit: Unit): number | undefined {
  return /^-?\d{1,4}(\.\d{1,4})?$/.test(text.trim()) ? rounded(Number(text) * unit.millimetres) : undefined;
}

export const KEYS: Record<Part, "check" | "stub" | "advice"> = {
  CHECK: "check",
  STUB: "stub",
  ADVICE: "advice",
};

export const blocksOn = (layout: Layout, part: Part): Block[] => layout[KEYS[part]];

export const blockAt = (layout: Layout, at: At): Block | undefined => blocksOn(layout, at.part)[at.block];

export function withBlock(layout: Layout, at: At, change: Partial<Block>): Layout {
  const blocks = blocksOn(layout, at.part).map((block, i) =>
    i === at.block ? { ...block, ...change } : block,
  );
  return { ...layout, [KEYS[at.part]]: blocks };
}

export function without(layout: Layout, at: At): Layout {
  return { ...layout, [KEYS[at.part]]: blocksOn(layout, at.part).filter((_, i) => i !== at.block) };
}

export function withOneMore(layout: Layout, part: Part, block: Block): Layout {
  return { ...layout, [KEYS[part]]: [...blocksOn(layout, part), block] };
}

/** Moved or sized by so many millimetres; nothing becomes smaller than one. */
export function shifted(
  block: Block,
  by: { x?: number; y?: number; width?: number; height?: number },
): Block {
  return {
    ...block,
    x: rounded(block.x + (by.x ?? 0)),
    y: rounded(block.y + (by.y ?? 0)),
    width: Math.max(1, rounded(block.width + (by.width ?? 0))),
    height: Math.max(1, rounded(block.height + (by.height ?? 0))),
  };
}

const NEAR_MM = 1.2;
const GRID_MM = 0.5;

/** Where an edge comes to rest: at one of the others that is near, or on the half millimetre. */
export function snapped(edge: number, others: number[]): number {
  const near = others
    .map((other) => ({ other, away: Math.abs(other - edge) }))
    .filter(({ away }) => away <= NEAR_MM)
    .sort((a, b) => a.away - b.away)[0];
  return near ? near.other : Math.round(edge / GRID_MM) * GRID_MM;
}

/** The edges that a block of a part may come to rest at: those of its other blocks, and of the part. */
export function edgesOf(blocks: Block[], except: number, part: PartView): { x: number[]; y: number[] } {
  const others = blocks.filter((_, i) => i !== except);
  const { free } = part;
  return {
    x: [free.x, free.x + free.width, ...others.flatMap((one) => [one.x, one.x + one.width])],
    y: [free.y, free.y + free.height, ...others.flatMap((one) => [one.y, one.y + one.height])],
  };
}

/** A block that is moved by hand: its nearer edge comes to rest, its size stays. */
export function rested(block: Block, edges: { x: number[]; y: number[] }): Block {
  const along = (from: number, size: number, others: number[]) => {
    const start = snapped(from, others);
    const end = snapped(from + size, others) - size;
    return rounded(Math.abs(start - from) <= Math.abs(end - from) ? start : end);
  };
  return {
    ...block,
    x: along(block.x, block.width, edges.x),
    y: along(block.y, block.height, edges.y),
  };
}
