import { cleanup, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { serve } from "../tests/served";
import { PaymentFilesPage } from "./PaymentFilesPage";

const listed = (id: number, state: "MADE" | "ACCEPTED", words: string) => ({
  file: {
    id,
    serial: id,
    name: `ach-${id}.ach`,
    madeAt: "2026-11-12T10:00:00Z",
    madeBy: "Ines Okafor",
    payments: 3,
    total: "5,194.60",
    paysOn: "2026-11-13",
    state,
    words,
    note: "",
  },
  currency: "USD",
  way: "ACH",
  batch: 7,
  batchName: `ACH, week ${id}`,
});

describe("files of payments", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("counts those the bank said nothing of, and lets one be answered", async () => {
    const { sent, user } = serve(<PaymentFilesPage />, {
      answers: {
        "GET /api/bank-accounts": [{ id: 1, name: "Operations", currency: "USD" }],
        "GET /api/payment-files": [listed(5, "MADE", "not known yet"), listed(4, "ACCEPTED", "taken")],
        "GET /api/exchange/channels/{account}": { kind: "NONE" },
        "POST /api/bank-files/{id}/accepted": {},
      },
    });
    const list = within(await screen.findByRole("grid", { name: "Files of payments" }));
    await user.click(await list.findByText("ACH, week 5"));
    expect(screen.getByText("file of which the bank said nothing yet")).toBeTruthy();
    expect(screen.getByText("3 payments, paid on Fri 13 Nov 2026")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "The bank took it…" }));
    await user.click(await screen.findByRole("button", { name: "Record that the bank took it" }));
    expect(sent[0]!.path).toBe("/api/bank-files/5/accepted");
  });
});
