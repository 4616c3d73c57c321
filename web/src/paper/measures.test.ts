import { describe, expect, it } from "vitest";
import { rested, shifted, shown, snapped, typed, UNITS, type Block } from "./measures";

const BLOCK: Block = {
  says: "DATE",
  x: 20,
  y: 30,
  width: 40,
  height: 5,
  face: "TEXT",
  size: 9,
  align: "LEFT",
  text: "",
};

describe("lengths", () => {
  it("are exact in hundredths of a millimetre and eighths of an inch", () => {
    expect(shown(3.175, UNITS.in)).toBe("0.125");
    expect(typed("0.125", UNITS.in)).toBe(3.175);
    expect(typed("12.34", UNITS.mm)).toBe(12.34);
    expect(shown(88.9, UNITS.in)).toBe("3.5");
  });

  it("are not guessed from what is no number", () => {
    for (const text of ["", "1,5", "12.", "1e3", "abc", "--1"]) expect(typed(text, UNITS.mm)).toBeUndefined();
  });
});

describe("a block", () => {
  it("is moved and sized, and never vanishes", () => {
    expect(shifted(BLOCK, { x: -0.5, y: 5 })).toMatchObject({ x: 19.5, y: 35, width: 40, height: 5 });
    expect(shifted(BLOCK, { width: -100, height: -100 })).toMatchObject({ width: 1, height: 1 });
  });

  it("comes to rest at an edge that is near, or on the half millimetre", () => {
    expect(snapped(49.2, [50, 48])).toBe(50);
    expect(snapped(49.26, [60])).toBe(49.5);
    // its right edge is nearer to one than its left edge to any
    expect(rested({ ...BLOCK, x: 19.9, width: 40 }, { x: [59.9 + 0.3], y: [] }).x).toBeCloseTo(20, 1);
  });
});
