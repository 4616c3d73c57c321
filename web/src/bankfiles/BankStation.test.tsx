import { cleanup, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { serve } from "../tests/served";
import { BankStation } from "./BankStation";

const money = (text: string) => ({ text, currency: "USD" });

function station(state: "MADE" | "ACCEPTED") {
  return serve(<BankStation />, {
    answers: {
      "GET /api/bank-accounts": [
        { id: 1, name: "Operations", bankName: "Skerrow Trust", currency: "USD", positivePay: true },
      ],
      "GET /api/checks/series": [{ id: 3, name: "Checks", account: "Operations", bankAccount: 1 }],
      "GET /api/bank-files/preview": {
        events: [],
        issues: 0,
        issued: money("0.00"),
        voids: 0,
        voided: money("0.00"),
        heldBack: 0,
        staying: 0,
        layout: "Skerrow Trust, 80 characters",
        records: [],
        recordCount: 0,
        kinds: [],
        findings: [],
      },
      "GET /api/bank-files": [
        {
          id: 9,
          serial: 27,
          name: "a.txt",
          madeAt: "2026-11-12T10:00:00Z",
          madeBy: "Ines Okafor",
          issues: 2,
          issued: money("46.00"),
          voids: 1,
          voided: money("3.00"),
          state,
          note: "",
          hash: "",
          anew: false,
          narrowed: "",
          refused: [],
        },
      ],
      "POST /api/bank-files/{id}/accepted": {},
    },
  });
}

describe("the bank's station", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("does not say that the bank knows what stands in a file it has not answered", async () => {
    station("MADE");
    expect(await screen.findByText(/Of file 27 it is not known yet whether the bank took it/)).toBeTruthy();
    expect(screen.getByText("not answered yet")).toBeTruthy();
    expect(screen.queryByText(/every file is answered/)).toBeNull();
  });

  it("says so when every file is answered, and never adds voids to issues", async () => {
    station("ACCEPTED");
    expect(await screen.findByText(/Nothing waits for a file, and every file is answered/)).toBeTruthy();
    expect(screen.getByText("2 issues and 1 void")).toBeTruthy();
    expect(screen.getByText("46.00, voids 3.00")).toBeTruthy();
  });
});
