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
  ...more,
});

function open(roles: string[], mails: Schemas["MailView"][]) {
  return serve(<MailPage />, {
    roles,
    answers: { "GET /api/mail": mails, "POST /api/mail/{id}/again": undefined },
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
      [mail(1, { state: "WAITING", tries: 3, trouble: "Connection refused", sentAt: undefined }), mail(2)],
    );
    const grid = await screen.findByRole("grid", { name: "Mail" });
    grid.focus();
    expect(await screen.findByText(/The server said: Connection refused/)).toBeTruthy();
    expect(screen.getByText("fails, 3×")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Try it again now" }));
    expect(sent).toEqual([{ path: "/api/mail/1/again", body: undefined }]);
    grid.focus();
    await user.keyboard("{ArrowDown}");
    expect((screen.getByRole("button", { name: "Try it again now" }) as HTMLButtonElement).disabled).toBe(
      true,
    );
  });

  it("that was given up stays in sight", async () => {
    open(["AUDITOR"], [mail(1, { state: "GIVEN_UP", tries: 14, trouble: "No such mailbox" })]);
    expect(await screen.findByText("given up")).toBeTruthy();
    expect(screen.getByText("in trouble")).toBeTruthy();
  });
});
