import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { toast, Toaster } from "sonner";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Refused } from "../api/client";
import { ignoreHeldKeys } from "./singleKeys";
import { useDeed, type DeedOptions } from "./useDeed";

type Answer = { resolve: (value: string) => void; reject: (error: unknown) => void };

/** A button whose deed is answered when the test says so. */
function Press({
  options,
  does,
}: {
  options: DeedOptions<string, string>;
  does: (given: string) => Promise<string>;
}) {
  const deed = useDeed(does, options);
  return (
    <button type="button" aria-busy={deed.busy} onClick={() => void deed.run("paid")}>
      Pay
    </button>
  );
}

function show(options: DeedOptions<string, string> = {}) {
  const answers: Answer[] = [];
  const does = vi.fn(
    () => new Promise<string>((resolve, reject) => answers.push({ resolve, reject })) as Promise<string>,
  );
  // the toasts capture the pointer, which jsdom cannot
  Element.prototype.setPointerCapture ??= () => undefined;
  window.matchMedia ??= (() => ({ matches: false, addEventListener: () => undefined })) as never;
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Press options={options} does={does} />
      <Toaster />
    </QueryClientProvider>,
  );
  return { does, answers, user: userEvent.setup(), button: screen.getByRole("button", { name: "Pay" }) };
}

describe("a deed", () => {
  afterEach(() => {
    toast.dismiss();
    cleanup();
  });

  it("is done once, however fast it is asked for again", async () => {
    const { does, answers, user, button } = show();
    await user.dblClick(button);
    expect(button.getAttribute("aria-busy")).toBe("true");
    expect(does).toHaveBeenCalledTimes(1);
    answers[0]!.resolve("done");
    await waitFor(() => expect(button.getAttribute("aria-busy")).toBe("false"));
    await user.click(button);
    expect(does).toHaveBeenCalledTimes(2);
  });

  it("waits in its line until the one before is answered", async () => {
    const done: string[] = [];
    const { does, answers, user, button } = show({ line: "one", done: (answer) => done.push(answer) });
    await user.click(button);
    await user.click(button);
    expect(does).toHaveBeenCalledTimes(1);
    answers[0]!.resolve("first");
    await waitFor(() => expect(does).toHaveBeenCalledTimes(2));
    expect(done).toEqual(["first"]);
    answers[1]!.resolve("second");
    await waitFor(() => expect(done).toEqual(["first", "second"]));
  });

  it("stays refused in sight until it is tried again", async () => {
    const { does, answers, user, button } = show({ said: () => "It is paid." });
    await user.click(button);
    answers[0]!.reject(new Refused(409, "held", "Kittiwake is held.", {}));
    expect(await screen.findByText("Kittiwake is held.")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Try again" }));
    expect(does).toHaveBeenLastCalledWith("paid", expect.anything());
    answers[1]!.resolve("done");
    expect(await screen.findByText("It is paid.")).toBeTruthy();
    await waitFor(() => expect(screen.queryByText("Kittiwake is held.")).toBeNull());
  });

  it("does not hide the refusal of one by the success of the next in its line", async () => {
    const { answers, user, button } = show({ line: "one", said: () => "The second is paid." });
    await user.click(button);
    await user.click(button);
    answers[0]!.reject(new Refused(409, "held", "The first is held.", {}));
    await waitFor(() => expect(answers).toHaveLength(2));
    answers[1]!.resolve("done");
    expect(await screen.findByText("The second is paid.")).toBeTruthy();
    expect(screen.getByText("The first is held.")).toBeTruthy();
  });

  it("is taken back beside what was said", async () => {
    const back = vi.fn().mockRejectedValueOnce(new Refused(409, "locked", "November is locked.", {}));
    const { answers, user, button } = show({ said: () => "It is paid.", undo: () => back });
    await user.click(button);
    answers[0]!.resolve("done");
    await user.click(await screen.findByRole("button", { name: "Undo" }));
    expect(await screen.findByText("November is locked.")).toBeTruthy();
    back.mockResolvedValue(undefined);
    await user.click(screen.getByRole("button", { name: "Try again" }));
    expect(back).toHaveBeenCalledTimes(2);
  });

  it("no longer offers the way back of one after the next, which may be its undoing", async () => {
    const { answers, user, button } = show({
      said: (answer) => (answer === "paid" ? "It is paid." : undefined),
      undo: () => () => Promise.resolve(),
    });
    await user.click(button);
    answers[0]!.resolve("paid");
    expect(await screen.findByRole("button", { name: "Undo" })).toBeTruthy();
    await user.click(button);
    answers[1]!.resolve("undone");
    await waitFor(() => expect(screen.queryByRole("button", { name: "Undo" })).toBeNull());
  });

  it("is not asked for again by a key held down, which still types", () => {
    const stop = ignoreHeldKeys();
    render(<textarea aria-label="Why" />);
    const { button } = show();
    const held = { key: "Enter", repeat: true };
    expect(fireEvent.keyDown(button, held)).toBe(false);
    expect(fireEvent.keyDown(button, { key: "Enter" })).toBe(true);
    expect(fireEvent.keyDown(screen.getByLabelText("Why"), held)).toBe(true);
    expect(fireEvent.keyDown(button, { key: "ArrowDown", repeat: true })).toBe(true);
    stop();
  });
});
