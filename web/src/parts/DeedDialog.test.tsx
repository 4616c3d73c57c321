import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Refused } from "../api/client";
import { DeedDialog } from "./DeedDialog";

function show(run: (reason: string) => Promise<void>) {
  const onClose = vi.fn();
  render(
    <QueryClientProvider client={new QueryClient()}>
      <DeedDialog
        open
        onClose={onClose}
        title="Void check 41237"
        deed="Void check 41237"
        grave
        reason="Why"
        run={run}
      />
    </QueryClientProvider>,
  );
  return { user: userEvent.setup(), onClose, deed: screen.getByRole("button", { name: "Void check 41237" }) };
}

describe("DeedDialog", () => {
  afterEach(() => {
    cleanup();
    sessionStorage.clear();
  });

  it("hands the reason over and closes when it is done", async () => {
    const run = vi.fn().mockResolvedValue(undefined);
    const { user, onClose, deed } = show(run);
    await user.type(screen.getByLabelText("Why"), "lost in the mail");
    await user.click(deed);
    expect(run).toHaveBeenCalledWith("lost in the mail");
    expect(onClose).toHaveBeenCalled();
  });

  it("stays open with what was typed when the server refuses", async () => {
    const { user, onClose, deed } = show(() =>
      Promise.reject(new Refused(409, "cleared", "Check 41237 cleared at the bank.", {})),
    );
    await user.type(screen.getByLabelText("Why"), "lost");
    await user.click(deed);
    expect((await screen.findByRole("alert")).textContent).toContain("cleared at the bank");
    expect((screen.getByLabelText("Why") as HTMLTextAreaElement).value).toBe("lost");
    expect(onClose).not.toHaveBeenCalled();
  });

  it("does a deed once, however often it is clicked", async () => {
    let finish = () => {};
    const run = vi.fn(() => new Promise<void>((done) => (finish = done)));
    const { user, deed } = show(run);
    await user.dblClick(deed);
    await user.click(deed);
    expect(run).toHaveBeenCalledOnce();
    finish();
  });

  it("gives back what was typed when it was closed by mistake, and forgets it with Not now", async () => {
    const { user } = show(vi.fn());
    await user.type(screen.getByLabelText("Why"), "lost in the mail");
    await user.keyboard("{Escape}");
    cleanup();
    const again = show(vi.fn());
    expect((screen.getByLabelText("Why") as HTMLTextAreaElement).value).toBe("lost in the mail");
    await again.user.click(screen.getByRole("button", { name: "Not now" }));
    cleanup();
    show(vi.fn());
    expect((screen.getByLabelText("Why") as HTMLTextAreaElement).value).toBe("");
  });

  it("backs out by Escape without doing anything", async () => {
    const run = vi.fn();
    const { user, onClose } = show(run);
    await user.keyboard("{Escape}");
    expect(onClose).toHaveBeenCalled();
    expect(run).not.toHaveBeenCalled();
  });
});
