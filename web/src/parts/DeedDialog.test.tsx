import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Refused } from "../api/client";
import { DeedDialog } from "./DeedDialog";

function show(run: (reason: string) => Promise<void>) {
  const onClose = vi.fn();
  render(
    <DeedDialog
      open
      onClose={onClose}
      title="Void check 41237"
      deed="Void check 41237"
      grave
      reason="Why"
      run={run}
    />,
  );
  return { user: userEvent.setup(), onClose, deed: screen.getByRole("button", { name: "Void check 41237" }) };
}

describe("DeedDialog", () => {
  afterEach(cleanup);

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

  it("backs out by Escape without doing anything", async () => {
    const run = vi.fn();
    const { user, onClose } = show(run);
    await user.keyboard("{Escape}");
    expect(onClose).toHaveBeenCalled();
    expect(run).not.toHaveBeenCalled();
  });
});
