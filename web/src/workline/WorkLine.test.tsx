import { cleanup, screen } from "@testing-library/react";
import { Toaster } from "sonner";
import { afterEach, describe, expect, it, vi } from "vitest";
import { api, Refused } from "../api/client";
import { serve } from "../tests/served";
import { WorkLine } from "./WorkLine";

function line(roles: string[]) {
  return serve(<WorkLine />, {
    roles,
    answers: {
      "GET /api/work": {
        stations: [
          {
            station: "approval",
            counted: "Batches that wait for an answer",
            count: 2,
            amounts: [
              { text: "110.00", currency: "USD" },
              { text: "20.00", currency: "EUR" },
            ],
          },
          { station: "post", counted: "Checks", count: 0, amounts: [] },
        ],
      },
    },
  });
}

/** The menu's entries for these roles. */
async function menu(roles: string[]): Promise<string[]> {
  const { user } = line(roles);
  await user.click(screen.getByRole("button", { name: /Somebody/ }));
  const entries = screen.getAllByRole("menuitem").map((entry) => entry.textContent);
  cleanup();
  return entries;
}

describe("the work line", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("says what waits at each station, per currency and never added", async () => {
    line(["APPROVER"]);
    expect(await screen.findByText("2 · 110.00 +")).toBeTruthy();
    expect(screen.getByRole("link", { name: /Approval/ }).getAttribute("title")).toBe(
      "Batches that wait for an answer: 2, 110.00 USD and 20.00 EUR",
    );
    expect(screen.getByText("nothing waits")).toBeTruthy();
  });

  it("offers the whole trail and the people only to those who may see them", async () => {
    expect(await menu(["CLERK"])).not.toContain("Trail");
    expect(await menu(["AUDITOR"])).toContain("Trail");
    expect(await menu(["AUDITOR"])).not.toContain("People");
    expect(await menu(["ADMINISTRATOR"])).toEqual(expect.arrayContaining(["Trail", "People"]));
    expect(await menu(["CLERK"])).toEqual(
      expect.arrayContaining(["Routes of approval", "Deputies", "Mail", "Your sessions and password"]),
    );
  });

  it("goes where the menu says", async () => {
    const { user } = line(["CONTROLLER"]);
    await user.click(screen.getByRole("button", { name: /Somebody/ }));
    await user.click(screen.getByRole("menuitem", { name: "Routes of approval" }));
    expect((await screen.findByLabelText("went to")).textContent).toBe("/routes");
  });

  it("says so when signing out was not heard: the session may still be open", async () => {
    const { user } = serve(
      <>
        <WorkLine />
        <Toaster />
      </>,
      { roles: ["CLERK"], answers: { "GET /api/work": { stations: [] } } },
    );
    vi.spyOn(api, "DELETE").mockRejectedValue(
      new Refused(0, "unanswered", "It is not known whether this was done.", {}),
    );
    await user.click(screen.getByRole("button", { name: /Somebody/ }));
    await user.click(screen.getByRole("menuitem", { name: "Sign out" }));
    expect(await screen.findByText("It is not known whether this was done.")).toBeTruthy();
  });
});
