import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import { FilePreview } from "./FilePreview";

const money = { text: "1.00", currency: "USD" };
const preview = {
  layout: "x",
  issues: 2,
  issued: money,
  voids: 0,
  voided: money,
  events: [],
  heldBack: 0,
  staying: 0,
  findings: [{ row: 2, field: "payee", sentence: "It is too long." }],
  kinds: [
    { words: "header", fields: ["record", "date"] },
    { words: "detail", fields: ["check number", "payee"] },
  ],
  records: [
    { text: "H261112", kind: 0, ends: [1, 7] },
    { text: "41237Bollard", kind: 1, ends: [5, 12] },
    { text: "41238Tern   ", kind: 1, ends: [5, 12] },
  ],
  recordCount: 5,
};

describe("a file before it is made", () => {
  afterEach(cleanup);

  it("leads from a character to its field, and from the field to where it stands in every such record", () => {
    render(<FilePreview preview={preview} />);
    expect(screen.getByRole("alert").textContent).toContain("Row 2, payee: It is too long.");
    fireEvent.pointerOver(screen.getByText("41237"));
    expect(screen.getByText("check number").parentElement!.textContent).toContain(
      "characters 1 to 5 of the detail",
    );
    expect(screen.getByText("41238").className).toContain("bg-cursor");
    expect(screen.getByText("H").className).toBe("");
    expect(screen.getByText(/These are the first 3 of 5 records/)).toBeTruthy();
  });

  it("is walked through by the arrows, and stays within the records", () => {
    render(<FilePreview preview={preview} />);
    const file = screen.getByRole("group", { name: "The file" });
    for (const key of ["ArrowRight", "ArrowRight", "ArrowRight"]) fireEvent.keyDown(file, { key });
    expect(screen.getByText("date").parentElement!.textContent).toContain("characters 2 to 7 of the header");
    for (const key of ["ArrowDown", "ArrowDown", "ArrowDown"]) fireEvent.keyDown(file, { key });
    expect(screen.getByText("payee").parentElement!.textContent).toContain(
      "characters 6 to 12 of the detail",
    );
    fireEvent.keyDown(file, { key: "a" });
    expect(screen.getByText("payee")).toBeTruthy();
  });
});
