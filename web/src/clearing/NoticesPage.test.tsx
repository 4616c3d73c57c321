import { cleanup, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { serve } from "../tests/served";
import { NoticesPage } from "./NoticesPage";

const waiting = {
  id: 3,
  kind: "RETURNED",
  code: "R03",
  words: "there is no such account",
  names: "990044100000002",
  called: "A500002",
  payee: "Halyard & Cleat Works",
  vendor: 11,
  batch: 7,
  claim: 70,
  amount: { text: "3,185.61", currency: "USD" },
  state: "WAITING",
  said: "It tells another amount than the 3,185.60 that was paid.",
  readOn: "2026-11-13",
  readAt: "2026-11-13T08:00:00Z",
  readBy: "Ines Okafor",
};

function page(roles = ["CLERK"], answers: Record<string, unknown> = {}) {
  return serve(<NoticesPage />, {
    roles,
    answers: {
      "GET /api/bank-accounts": [{ id: 1, name: "Operations", currency: "USD" }],
      "GET /api/bank-notices": [waiting],
      ...answers,
    },
  });
}

describe("what the bank sent back", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("says why one waits, and closes it for a reason only", async () => {
    const { sent, user } = page(["CLERK"], { "POST /api/bank-notices/{id}/close": {} });
    expect(await screen.findByText(/another amount than the 3,185.60/)).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "It is dealt with…" }));
    await user.type(await screen.findByLabelText("What became of it"), "paid by check");
    await user.click(screen.getByRole("button", { name: "Close it" }));
    expect(sent).toEqual([{ path: "/api/bank-notices/3/close", body: { why: "paid by check" } }]);
  });

  it("tries again what waits", async () => {
    const { sent, user } = page(["CLERK"], { "POST /api/bank-notices/{id}/again": { done: false } });
    await user.click(await screen.findByRole("button", { name: "Try it again" }));
    expect(sent).toEqual([{ path: "/api/bank-notices/3/again", body: undefined }]);
  });

  it("offers nothing to whoever only reads", async () => {
    page(["AUDITOR"]);
    expect(await screen.findByText(/another amount than the 3,185.60/)).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Try it again" })).toBeNull();
    expect(screen.queryByRole("button", { name: "Read a file of the bank…" })).toBeNull();
  });
});
