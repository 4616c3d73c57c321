import { cleanup, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Problem, serve, type Answers } from "../tests/served";
import { ChoiceWord, DayWord } from "./Word";

const changed = vi.fn();

function day(answers: Answers, more: { value?: string; none?: string } = {}) {
  return serve(
    <DayWord
      name="Due by"
      text="Fri 20 Nov"
      value={more.value ?? "2026-11-20"}
      none={more.none}
      onChange={changed}
    />,
    { answers },
  );
}

describe("a word of a sentence", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
    changed.mockClear();
  });

  it("opens its choice in place, marks what holds, and closes on a choice", async () => {
    const { user } = serve(
      <ChoiceWord
        name="Shown"
        text="open invoices"
        value="OPEN"
        choices={[
          { value: "OPEN", text: "open invoices" },
          { value: "ALL", text: "everything", detail: "in time order" },
        ]}
        onChange={changed}
      />,
      { answers: {} },
    );
    await user.click(screen.getByRole("button", { name: "Shown: open invoices" }));
    expect(screen.getByRole("button", { name: /open invoices/, pressed: true })).toBeTruthy();
    await user.click(screen.getByRole("button", { name: /everything/, pressed: false }));
    expect(changed).toHaveBeenCalledWith("ALL");
    expect(screen.queryByRole("list", { name: "Shown" })).toBeNull();
  });

  it("takes a date", async () => {
    const { user } = day({});
    await user.click(screen.getByRole("button", { name: "Due by: Fri 20 Nov" }));
    expect((screen.getByLabelText("Due by") as HTMLInputElement).value).toBe("Fri 20 Nov 2026");
    await user.click(screen.getByRole("button", { name: "Use this day" }));
    expect(changed).toHaveBeenCalledWith("2026-11-20");
  });

  it("keeps words that move with the day, and turns others into their date", async () => {
    const answers: Answers = { "GET /api/due/day": { date: "2026-11-20", relative: true } };
    const { user } = day(answers);
    const word = screen.getByRole("button", { name: "Due by: Fri 20 Nov" });
    await user.click(word);
    await user.clear(screen.getByRole("textbox"));
    await user.type(screen.getByRole("textbox"), "Next Friday{enter}");
    await waitFor(() => expect(changed).toHaveBeenCalledWith("next friday"));
    answers["GET /api/due/day"] = { date: "2026-12-24", relative: false };
    await user.click(word);
    await user.clear(screen.getByRole("textbox"));
    await user.type(screen.getByRole("textbox"), "24 dec{enter}");
    await waitFor(() => expect(changed).toHaveBeenLastCalledWith("2026-12-24"));
  });

  it("says in place that words are no day, and changes nothing", async () => {
    const { user } = day({ "GET /api/due/day": new Problem(422, "day-unreadable", "“soonish” is no day.") });
    await user.click(screen.getByRole("button", { name: "Due by: Fri 20 Nov" }));
    await user.clear(screen.getByRole("textbox"));
    await user.type(screen.getByRole("textbox"), "soonish{enter}");
    expect((await screen.findByRole("alert")).textContent).toContain("“soonish” is no day");
    expect(changed).not.toHaveBeenCalled();
    expect((screen.getByRole("textbox") as HTMLInputElement).value).toBe("soonish");
  });

  it("can be no day where that is a choice", async () => {
    const { user } = day({}, { none: "From the beginning" });
    await user.click(screen.getByRole("button", { name: "Due by: Fri 20 Nov" }));
    await user.click(screen.getByRole("button", { name: "From the beginning" }));
    expect(changed).toHaveBeenCalledWith(undefined);
  });

  it("backs out by Escape without changing anything", async () => {
    const { user } = day({});
    await user.click(screen.getByRole("button", { name: "Due by: Fri 20 Nov" }));
    await user.keyboard("{Escape}");
    expect(screen.queryByRole("button", { name: "Use this day" })).toBeNull();
    expect(changed).not.toHaveBeenCalled();
  });
});
