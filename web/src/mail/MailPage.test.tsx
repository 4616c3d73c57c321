import { cleanup, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { serve } from "../tests/served";
import { MailPage } from "./MailPage";

const mail = (id: number, more: Partial<Schemas["MailView"]> = {}): Schemas["MailView"] => ({
  id,
  to: "Maren Lindqvist",
  address: "maren@marrowbay.example",
  subject: "Asked: Week 46",
  link: "/approval/7",
  text: "Hello Maren",
  madeAt: "2026-11-12T08:00:00Z",
  state: "SENT",
  tries: 1,
  nextTryAt: "2026-11-12T08:00:00Z",
  sentAt: "2026-11-12T08:00:02Z",
  trouble: "",
  stateWords: "sent",
  advice: false,
  inTrouble: false,
  ...more,
});

function open(roles: string[], mails: Schemas["MailView"][]) {
  return serve(<MailPage />, {
    roles,
    answers: {
      "GET /api/mail": mails,
      "POST /api/mail/{id}/again": undefined,
      "POST /api/mail/{id}/returned": undefined,
    },
  });
}

describe("mail", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("shows what was told, and where its link leads", async () => {
    open(["CLERK"], [mail(1)]);
    (await screen.findByRole("grid", { name: "Mail" })).focus();
    expect(await screen.findByText("Hello Maren")).toBeTruthy();
    expect(screen.getByRole("link", { name: "Where its link leads" }).getAttribute("href")).toBe(
      "/approval/7",
    );
    expect(screen.queryByRole("button", { name: "Try it again now" })).toBeNull();
  });

  it("says what the server said, and is tried again by whoever may", async () => {
    const { user, sent } = open(
      ["CONTROLLER"],
      [
        mail(1, {
          state: "WAITING",
          tries: 3,
          trouble: "Connection refused",
          inTrouble: true,
          sentAt: undefined,
        }),
        mail(2),
      ],
    );
    const grid = await screen.findByRole("grid", { name: "Mail" });
    grid.focus();
    expect(await screen.findByText(/It failed: Connection refused/)).toBeTruthy();
    expect(screen.getByText("fails, 3×")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Try it again now" }));
    expect(sent).toEqual([{ path: "/api/mail/1/again", body: undefined }]);
    grid.focus();
    await user.keyboard("{ArrowDown}");
    expect((screen.getByRole("button", { name: "Try it again now" }) as HTMLButtonElement).disabled).toBe(
      true,
    );
  });

  it("to a payee came back, as a clerk was told", async () => {
    const { user, sent } = open(["CLERK"], [mail(4, { advice: true, to: "Pelorus Charts" })]);
    (await screen.findByRole("grid", { name: "Mail" })).focus();
    await user.click(await screen.findByRole("button", { name: "It came back…" }));
    await user.type(await screen.findByLabelText(/What was said/), "no such mailbox");
    await user.click(screen.getByRole("button", { name: "It came back" }));
    expect(sent).toEqual([{ path: "/api/mail/4/returned", body: { why: "no such mailbox" } }]);
  });

  it("that was given up stays in sight", async () => {
    open(
      ["AUDITOR"],
      [
        mail(1, {
          state: "GIVEN_UP",
          stateWords: "given up",
          tries: 14,
          trouble: "No such mailbox",
          inTrouble: true,
        }),
      ],
    );
    expect(await screen.findByText("given up")).toBeTruthy();
    expect(screen.getByText("in trouble")).toBeTruthy();
  });
});
