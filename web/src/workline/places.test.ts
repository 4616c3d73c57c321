import { describe, expect, it } from "vitest";
import { GROUPS, placesFor } from "./places";

const found = (text: string, roles: string[]) => placesFor(text, roles).map((place) => place.title);

describe("the places of Ctrl K", () => {
  it("are all there are for who may go there", () => {
    const all = GROUPS.flatMap((group) => group.places.map((place) => place.title));
    expect(found("", ["CLERK", "CONTROLLER", "ADMINISTRATOR"])).toEqual(expect.arrayContaining(all));
    expect(found("", ["CLERK"])).not.toContain("People");
    expect(found("", ["ADMINISTRATOR"])).not.toContain("New vendor");
  });

  it("are found by the beginning of their words, also of words they are looked for by", () => {
    expect(found("reg", ["CLERK"])).toContain("Register");
    expect(found("trial bal", ["CLERK"])).toEqual(["Ledger"]);
    expect(found("holidays", ["ADMINISTRATOR"])).toEqual(["Bank accounts"]);
    expect(found("zzz", ["CLERK"])).toEqual([]);
  });
});
