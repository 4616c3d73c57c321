import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { serve } from "../tests/served";
import { asLines, columns, form, fromLines, inShort, moved, parsed, type LayoutText } from "./layoutText";
import { LayoutsPage } from "./LayoutsPage";

const field = (name: string, source: string, width: number) => ({
  name,
  source,
  value: source === "CONSTANT" ? "D" : "",
  width,
  align: "LEFT",
  fill: " ",
  cut: false,
  letters: "AS_THEY_ARE",
  decimals: "POINT",
  sign: "NONE",
  substitutions: { values: {}, missing: "STAYS", other: "" },
  characters: { allowed: "", replaced: {}, beyond: "REFUSED", other: "" },
});

const LAYOUT: LayoutText = {
  format: "level-tally bank layout 1",
  name: "Ours",
  use: "POSITIVE_PAY",
  encoding: "UTF-8",
  byteOrderMark: false,
  lineEnd: "LF",
  separator: "",
  quote: "",
  quoting: "NEVER",
  escape: "NONE",
  fileName: "a.txt",
  records: [
    {
      place: "DETAIL",
      tells: "BOTH",
      fields: [field("record", "CONSTANT", 1), field("payee", "PAYEE", 12)],
    },
  ],
};

const money = { text: "1.00", currency: "USD" };
const preview = {
  layout: "Ours",
  issues: 1,
  issued: money,
  voids: 0,
  voided: money,
  events: [],
  heldBack: 0,
  staying: 0,
  findings: [],
  kinds: [{ words: "detail", fields: ["record", "payee"] }],
  records: [{ text: "DBollard     ", kind: 0, ends: [1, 13] }],
  recordCount: 1,
};

function page(roles = ["ADMINISTRATOR"]) {
  return serve(<LayoutsPage />, {
    roles,
    answers: {
      "GET /api/bank-layouts": [
        { id: 7, name: "Ours", use: "POSITIVE_PAY", version: 1, newest: true, usedBy: "Operations" },
      ],
      "GET /api/bank-accounts": [{ id: 1, name: "Operations", bankName: "Skerrow Trust" }],
      "GET /api/bank-layouts/{id}": { text: JSON.stringify(LAYOUT) },
      "POST /api/bank-layouts/try": (body: { text: string }) => ({
        wrong: body.text.includes('"width": 0')
          ? [{ record: 1, field: 2, sentence: "Its width is 1 to 2000." }]
          : [],
        fileName: "a.txt",
        preview,
      }),
      "POST /api/bank-layouts/try-field": { written: "BOLLARD", findings: [] },
    },
  });
}

describe("the text of a layout", () => {
  it("is shown as a table only where it is one", () => {
    expect(parsed("{")).toBeUndefined();
    expect(parsed("{}")).toBeUndefined();
    expect(parsed(JSON.stringify({ ...LAYOUT, records: [{ fields: [{}] }] }))).toBeUndefined();
    expect(parsed(JSON.stringify(LAYOUT))).toEqual(LAYOUT);
  });

  it("says where fields stand and how they are written", () => {
    expect(columns(LAYOUT.records[0]!)).toEqual([
      [1, 1],
      [2, 13],
    ]);
    expect(inShort({ ...field("a", "AMOUNT", 9), decimals: "IMPLIED", align: "RIGHT", fill: "0" })).toBe(
      "122500, right, filled with 0",
    );
    expect(form("ISSUE_TOTAL")).toBe("amount");
    expect(form("CLOSING_BALANCE")).toBe("amount");
    expect(form("FROM_DATE")).toBe("day");
    expect(form("VOID_HASH")).toBe("figure");
    expect(form("NUMBER_AS_PRINTED")).toBe("text");
  });

  it("takes lines for what stands for what, and leaves out what is not finished", () => {
    expect(fromLines("ISSUE = I\nVOI\n= = -\nVOID=V")).toEqual({ ISSUE: "I", "=": "-", VOID: "V" });
    expect(asLines({ ISSUE: "I", VOID: "" })).toBe("ISSUE = I\nVOID = ");
  });

  it("moves one of a list and stays within its ends", () => {
    expect(moved([1, 2, 3], 0, 1)).toEqual([2, 1, 3]);
    expect(moved([1, 2, 3], 0, -1)).toEqual([1, 2, 3]);
    expect(moved([1, 2, 3], 2, 1)).toEqual([1, 2, 3]);
  });
});

describe("the layouts of bank files", () => {
  beforeEach(() => sessionStorage.clear());
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("changes a field beside the records it makes, and says what is wrong with it", async () => {
    const { sent } = page();
    fireEvent.click(await screen.findByRole("button", { name: "payee" }));
    expect((screen.getByLabelText("Width") as HTMLInputElement).value).toBe("12");
    fireEvent.change(screen.getByLabelText("Width"), { target: { value: "x0" } });
    await waitFor(() => expect(screen.getByRole("alert").textContent).toBe("Its width is 1 to 2000."));
    const tried = sent.filter((one) => one.path === "/api/bank-layouts/try").at(-1)!;
    expect(parsed((tried.body as { text: string }).text)!.records[0]!.fields[1]!.width).toBe(0);
    expect(screen.getByRole("button", { name: "Keep as the next version…" })).toHaveProperty(
      "disabled",
      true,
    );
    fireEvent.click(screen.getByRole("button", { name: "As it was" }));
    expect((screen.getByLabelText("Width") as HTMLInputElement).value).toBe("12");
  });

  it("leads from a character to its field", async () => {
    page();
    fireEvent.click(await screen.findByText("Bollard", { selector: "[data-field]" }));
    expect(await screen.findByRole("heading", { name: "Field 2" })).toBeTruthy();
  });

  it("tries a field with a value", async () => {
    page();
    fireEvent.click(await screen.findByRole("button", { name: "payee" }));
    fireEvent.change(screen.getByLabelText("Try a value"), { target: { value: "Bollard" } });
    expect(await screen.findByText("BOLLARD")).toBeTruthy();
  });

  it("is only looked at by others", async () => {
    page(["CLERK"]);
    fireEvent.click(await screen.findByRole("button", { name: "payee" }));
    expect(screen.getByLabelText("Width").closest("fieldset")).toHaveProperty("disabled", true);
    expect(screen.getByText("An administrator changes layouts.")).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Copy" })).toBeNull();
  });
});
