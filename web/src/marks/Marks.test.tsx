import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { Marks, markWords } from "./Marks";

type Mark = Schemas["MarkView"];

const duplicate: Mark = {
  key: "DUPLICATE 1 2",
  kind: "DUPLICATE",
  words: "possible duplicate",
  reason: "GRW 2217 may be a duplicate of GRW 2271: the same amount.",
  facts: [
    {
      kind: "OTHER_INVOICE",
      title: "GRW 2271",
      invoice: 2,
      date: "2026-10-16",
      amount: "1,392.60",
      detail: "Gannet Rope Walk, paid by check 41237",
    },
  ],
};
const changed: Mark = {
  key: "CHANGED_PAYEE 7 2026-11-06",
  kind: "CHANGED_PAYEE",
  words: "address or bank details changed",
  reason: "The bank details of Turnstone Security changed.",
  facts: [
    {
      kind: "CHANGE",
      title: "bank details",
      date: "2026-11-06",
      before: "routing 990073053, account ••••1025",
      after: "routing 990044105, account ••••4417",
      detail: "proposed by Ines Okafor, confirmed by Ruth Castellane",
    },
  ],
};
const above: Mark = {
  key: "FAR_ABOVE 7 900.00",
  kind: "FAR_ABOVE",
  words: "far above the usual",
  reason: "900.00 is more than 3 times the usual 100.00.",
  facts: [
    {
      kind: "USUAL",
      title: "usual amounts",
      range: {
        known: 12,
        low: "80.00",
        median: "100.00",
        high: "450.00",
        now: "900.00",
        lowAt: 9,
        medianAt: 11,
        highAt: 50,
      },
    },
  ],
};

describe("Marks", () => {
  afterEach(cleanup);

  it("gives the reason and the other invoice of a suspected duplicate", () => {
    render(<Marks marks={[duplicate]} />);
    expect(screen.getByRole("heading", { name: "possible duplicate" })).toBeTruthy();
    expect(screen.getByText("GRW 2271")).toBeTruthy();
    expect(screen.getByText("Fri 16 Oct")).toBeTruthy();
    expect(screen.getByText(/paid by check 41237/)).toBeTruthy();
  });

  it("sets old and new bank details against each other, masked", () => {
    render(<Marks marks={[changed]} />);
    expect(screen.getByRole("row", { name: /before .*1025/ })).toBeTruthy();
    expect(screen.getByRole("row", { name: /now .*4417/ })).toBeTruthy();
    expect(screen.getByRole("row", { name: /proposed by Ines Okafor.*Fri 6 Nov/ })).toBeTruthy();
  });

  it("draws the usual range and says it in words", () => {
    render(<Marks marks={[above]} />);
    const picture = screen.getByRole("img");
    expect(picture.getAttribute("aria-label")).toContain("80.00 to 450.00, in the middle 100.00");
    const [axis, range, median] = picture.querySelectorAll("line");
    const x = (line: Element | undefined, name: string) => Number(line?.getAttribute(name));
    // the range ends halfway, the middle stands within it, this payment at the right end
    expect(x(range, "x2")).toBeCloseTo((x(axis, "x1") + x(axis, "x2")) / 2);
    expect(x(median, "x1")).toBeGreaterThan(x(range, "x1"));
    expect(x(picture.querySelector("circle")!, "cx")).toBe(x(axis, "x2"));
  });

  it("offers no answer where none is taken", () => {
    render(<Marks marks={[duplicate]} />);
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("sends what was found out along, and keeps it when that failed", async () => {
    const answer = vi.fn().mockResolvedValueOnce(false).mockResolvedValueOnce(true);
    const user = userEvent.setup();
    render(<Marks marks={[duplicate]} answer={answer} />);
    await user.click(screen.getByRole("button", { name: "Say what you found out…" }));
    const send = screen.getByRole("button", { name: "Send it along" }) as HTMLButtonElement;
    expect(send.disabled).toBe(true);
    await user.type(screen.getByRole("textbox"), "two deliveries");
    await user.click(send);
    expect(answer).toHaveBeenCalledWith("DUPLICATE 1 2", "two deliveries");
    expect((screen.getByRole("textbox") as HTMLTextAreaElement).value).toBe("two deliveries");
    await user.click(send);
    expect(screen.queryByRole("textbox")).toBeNull();
  });

  it("shows who answered, and takes more", () => {
    render(
      <Marks
        marks={[{ ...duplicate, answer: "I called them", answeredBy: "Ines Okafor" }]}
        answer={vi.fn()}
      />,
    );
    expect(screen.getByText("Ines Okafor:")).toBeTruthy();
    expect(screen.getByText(/“I called them”/)).toBeTruthy();
    expect(screen.getByRole("button", { name: "Say more…" })).toBeTruthy();
  });

  it("names each kind once in a list", () => {
    expect(markWords([duplicate, { ...duplicate, key: "DUPLICATE 1 3" }, above])).toBe(
      "possible duplicate · far above the usual",
    );
    expect(markWords([])).toBe("");
  });
});
