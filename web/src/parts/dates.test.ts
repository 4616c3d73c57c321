import { describe, expect, it } from "vitest";
import { longDate, nextFriday, plusDays, shortDate } from "./dates";

describe("dates", () => {
  it.each([
    ["2026-11-12", "Thu 12 Nov 2026"],
    ["2028-02-29", "Tue 29 Feb 2028"],
  ])("%s reads %s", (iso, words) => {
    expect(longDate(iso)).toBe(words);
    expect(words.startsWith(shortDate(iso))).toBe(true);
  });

  it.each([
    ["2026-11-12", "2026-11-13"],
    ["2026-11-13", "2026-11-13"],
    ["2026-11-14", "2026-11-20"],
  ])("the Friday on or after %s is %s", (iso, friday) => {
    expect(nextFriday(iso)).toBe(friday);
  });

  it("crosses months and years", () => {
    expect(plusDays("2026-12-25", 14)).toBe("2027-01-08");
  });
});
