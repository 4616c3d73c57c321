import { cleanup, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { Problem, serve, type Answers } from "../tests/served";
import { OwnPage } from "./OwnPage";
import { PeoplePage } from "./PeoplePage";

const member = (
  id: number,
  name: string,
  more: Partial<Schemas["MemberView"]> = {},
): Schemas["MemberView"] => ({
  id,
  signIn: name.toLowerCase(),
  name,
  email: "",
  roles: ["CLERK"],
  enabled: true,
  sessions: 0,
  version: 3,
  ...more,
});
const session = (key: string, current: boolean): Schemas["OpenSession"] => ({
  key,
  begun: "2026-11-12T08:00:00Z",
  lastUsed: "2026-11-12T09:00:00Z",
  from: "127.0.0.1, a browser",
  current,
});

function people(members: Schemas["MemberView"][], answers: Answers = {}) {
  return serve(<PeoplePage />, {
    path: "/people",
    roles: ["ADMINISTRATOR"],
    answers: {
      "GET /api/people": members,
      "GET /api/people/changes": [],
      "GET /api/people/{id}/sessions": [session("k1", false)],
      ...answers,
    },
  });
}

const button = (name: string) => screen.getByRole("button", { name }) as HTMLButtonElement;

describe("the people", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("are added with their roles", async () => {
    const { user, sent } = people([member(1, "Joss")], { "POST /api/people": { waits: false } });
    await user.click(await screen.findByRole("button", { name: "Add somebody…" }));
    const dialog = screen.getByRole("dialog");
    await user.type(within(dialog).getByLabelText("Name to sign in with"), "nell");
    await user.type(within(dialog).getByLabelText("Full name"), "Nell Sandvik");
    await user.type(within(dialog).getByLabelText(/First password/), "copper lantern tide nine");
    await user.click(within(dialog).getByLabelText(/clerk/));
    await user.click(within(dialog).getByLabelText(/approver/));
    await user.click(within(dialog).getByRole("button", { name: "Add" }));
    expect(sent).toEqual([
      {
        path: "/api/people",
        body: {
          signIn: "nell",
          name: "Nell Sandvik",
          email: "",
          password: "copper lantern tide nine",
          roles: ["APPROVER"],
        },
      },
    ]);
  });

  it("keep what was typed when a password is too common", async () => {
    const { user } = people([member(1, "Joss")], {
      "POST /api/people": new Problem(422, "password", "This password is on the list of common ones."),
    });
    await user.click(await screen.findByRole("button", { name: "Add somebody…" }));
    await user.type(screen.getByLabelText("Full name"), "Nell");
    await user.click(screen.getByRole("button", { name: "Add" }));
    expect((await screen.findByRole("alert")).textContent).toContain("list of common ones");
    expect((screen.getByLabelText("Full name") as HTMLInputElement).value).toBe("Nell");
  });

  it("are changed as they were seen, by version", async () => {
    const { user, sent } = people([member(2, "Nell")], { "POST /api/people/{id}": { waits: false } });
    (await screen.findByRole("grid", { name: "People" })).focus();
    await user.keyboard("{Enter}");
    await user.click(screen.getByLabelText(/auditor/));
    await user.click(button("Keep the change"));
    expect(sent).toEqual([
      { path: "/api/people/2", body: { version: 3, name: "Nell", email: "", roles: ["CLERK", "AUDITOR"] } },
    ]);
  });

  it("cannot serve themselves", async () => {
    const { user } = people([member(1, "Joss", { roles: ["ADMINISTRATOR"] })]);
    (await screen.findByRole("grid", { name: "People" })).focus();
    await screen.findByText(/somebody else changes your roles/);
    expect(button("Disable…").disabled).toBe(true);
    await user.click(button("Change…"));
    expect((screen.getByRole("group", { name: "Roles" }) as HTMLFieldSetElement).disabled).toBe(true);
  });

  it("are disabled, let in again, and given another password", async () => {
    const { user, sent } = people([member(2, "Nell"), member(3, "Odd", { enabled: false })], {
      "POST /api/people/{id}/disable": undefined,
      "POST /api/people/{id}/enable": undefined,
      "POST /api/people/{id}/password": { waits: true },
    });
    const grid = await screen.findByRole("grid", { name: "People" });
    grid.focus();
    await user.click(button("Disable…"));
    await user.click(button("Disable"));
    grid.focus();
    await user.keyboard("{ArrowDown}");
    await user.click(button("Let in again…"));
    await user.click(button("Let in"));
    await user.click(button("New password…"));
    await user.type(screen.getByLabelText(/Password, 12 characters/), "copper lantern tide nine");
    await user.click(button("Set the password"));
    expect(sent).toEqual([
      { path: "/api/people/2/disable", body: { version: 3 } },
      { path: "/api/people/3/enable", body: { version: 3 } },
      { path: "/api/people/3/password", body: { password: "copper lantern tide nine" } },
    ]);
  });

  it("have their sessions ended one by one", async () => {
    const { user, sent } = people([member(2, "Nell", { sessions: 1 })], {
      "POST /api/people/{id}/sessions/{key}/end": undefined,
    });
    (await screen.findByRole("grid", { name: "People" })).focus();
    await user.click(await screen.findByRole("button", { name: "End it" }));
    expect(sent).toEqual([{ path: "/api/people/2/sessions/k1/end", body: undefined }]);
  });
});

describe("one's own page", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("ends every session but the one in use", async () => {
    const { user, sent } = serve(<OwnPage />, {
      answers: {
        "GET /api/session/all": [session("here", true), session("there", false)],
        "POST /api/session/{key}/end": undefined,
      },
    });
    expect(await screen.findByText("this session")).toBeTruthy();
    const ends = screen.getAllByRole("button", { name: "End it" });
    expect(ends).toHaveLength(1);
    await user.click(ends[0]!);
    expect(sent).toEqual([{ path: "/api/session/there/end", body: undefined }]);
  });

  it("changes the password, and says what was wrong with it in place", async () => {
    const answers: Answers = {
      "GET /api/session/all": [],
      "POST /api/session/password": new Problem(422, "wrong-password", "This is not your present password."),
    };
    const { user, sent } = serve(<OwnPage />, { answers });
    const change = await screen.findByRole("button", { name: "Change the password" });
    await user.click(change);
    expect(sent).toEqual([]);
    await user.type(screen.getByLabelText("Present password"), "old one");
    await user.type(screen.getByLabelText(/New password/), "copper lantern tide nine");
    await user.click(change);
    expect((await screen.findByRole("alert")).textContent).toContain("not your present password");
    expect((screen.getByLabelText("Present password") as HTMLInputElement).value).toBe("old one");
    answers["POST /api/session/password"] = undefined;
    await user.click(change);
    await waitFor(() =>
      expect((screen.getByLabelText("Present password") as HTMLInputElement).value).toBe(""),
    );
  });
});
