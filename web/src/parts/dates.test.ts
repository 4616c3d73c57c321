import { describe, expect, it } from "vitest";
import { clock, longDate, shortDate, showOn, waited } from "./dates";

describe("dates", () => {
  it.each([
    ["2026-11-12", "Thu 12 Nov 2026"],
    ["2028-02-29", "Tue 29 Feb 2028"],
  ])("%s reads %s", (iso, words) => {
    expect(longDate(iso)).toBe(words);
    expect(words.startsWith(shortDate(iso))).toBe(true);
  });

  it("names the year where it is another than the business day's", () => {
    showOn("2026-11-12", "UTC");
    expect(shortDate("2026-12-31")).toBe("Thu 31 Dec");
    expect(shortDate("2027-05-31")).toBe("Mon 31 May 2027");
  });

  it("shows an instant with its year, on the business day's clock wherever it is read", () => {
    expect(clock("2026-12-31T23:30:00Z")).toBe("31 Dec 2026 23:30");
    showOn("2026-11-12", "Europe/Oslo");
    expect(clock("2026-12-31T23:30:00Z")).toBe("1 Jan 2027 00:30");
    showOn("2026-11-12", "UTC");
  });

  it.each([
    ["2026-11-12T10:00:30Z", "0 min"],
    ["2026-11-12T09:02:00Z", "59 min"],
    ["2026-11-12T09:01:00Z", "1 h"],
    ["2026-11-10T10:02:00Z", "47 h"],
    ["2026-11-10T10:00:00Z", "2 days"],
    ["2026-11-12T11:00:00Z", "0 min"],
  ])("since %s it waits %s", (instant, words) => {
    expect(waited(instant, "2026-11-12T10:01:00Z")).toBe(words);
  });
});
