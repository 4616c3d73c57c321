import { act, cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { api } from "../api/client";
import { DayField } from "./DayField";

type Answer = (day?: string, relative?: boolean) => void;

/** The server's reading of each text, answered when the test says so. */
function reading() {
  const waiting = new Map<string, Answer>();
  vi.spyOn(api, "GET").mockImplementation(
    ((_: string, { params }: { params: { query: { text: string } } }) =>
      new Promise((resolve) =>
        waiting.set(params.query.text, (date, relative = false) =>
          resolve(
            date
              ? { data: { date, relative }, response: new Response(null, { status: 200 }) }
              : { error: { detail: "That is no day." }, response: new Response(null, { status: 422 }) },
          ),
        ),
      )) as never,
  );
  return (text: string, day?: string, relative?: boolean) =>
    act(async () => waiting.get(text)!(day, relative));
}

function type(text: string) {
  fireEvent.change(screen.getByRole("textbox", { name: /^Day/ }), { target: { value: text } });
}

describe("a day in words", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("says what it means and gives the date, or the words where they shall move", async () => {
    const answer = reading();
    const day = vi.fn();
    const { rerender } = render(<DayField label="Day" value="2026-11-12" onDay={day} />);
    expect(screen.getByRole("textbox")).toHaveProperty("value", "Thu 12 Nov 2026");
    type("fri");
    await answer("fri", "2026-11-13", true);
    expect(screen.getByText("Fri 13 Nov 2026")).toBeTruthy();
    expect(day).toHaveBeenLastCalledWith("2026-11-13");
    rerender(<DayField label="Day" value="2026-11-13" relative onDay={day} />);
    type("end of month");
    await answer("end of month", "2026-11-30", true);
    expect(day).toHaveBeenLastCalledWith("end of month");
  });

  it("lets no late reading of an older text win, and gives nothing while it is no day", async () => {
    const answer = reading();
    const day = vi.fn();
    render(<DayField label="Day" value="" onDay={day} />);
    type("2");
    type("20 nov");
    await answer("20 nov", "2026-11-20");
    await answer("2");
    await waitFor(() => expect(screen.getByText("Fri 20 Nov 2026")).toBeTruthy());
    expect(day).toHaveBeenLastCalledWith("2026-11-20");
    type("20 nov soon");
    await answer("20 nov soon");
    expect(screen.getByText("That is no day.")).toBeTruthy();
    expect(day).toHaveBeenLastCalledWith(undefined);
  });
});
