import { describe, expect, it } from "vitest";
import { readRanges, writeRanges } from "./ranges";

describe("ranges", () => {
  it.each([
    [[], ""],
    [[7], "7"],
    [[9, 7, 8, 7], "7-9"],
    [[1, 2, 3, 7, 9, 10], "1-3.7.9-10"],
  ])("writes %j as %s and reads it again", (entries, text) => {
    expect(writeRanges(entries)).toBe(text);
    expect([...readRanges(text)]).toEqual([...new Set(entries)].sort((a, b) => a - b));
  });

  it("passes over nonsense", () => {
    expect([...readRanges("x.5.-")]).toEqual([5]);
  });
});
