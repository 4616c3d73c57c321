import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { serve } from "../tests/served";
import { ExchangePage } from "./ExchangePage";
import { PracticePage } from "./PracticePage";

const accounts = [
  { id: 1, name: "Operations", bankName: "Skerrow Trust", currency: "USD", positivePay: true },
];
const incoming = {
  id: 5,
  name: "statement-1.xml",
  bytes: 900,
  fetchedAt: "2026-11-12T10:00:00Z",
  is: "camt.053",
  state: "WAITING",
  said: "This statement does not follow the last one.",
  gap: true,
};
const exchange = {
  by: "SFTP to us@bank:22",
  practice: false,
  lookedAt: "2026-11-12T10:00:00Z",
  trouble: "",
  decisions: "Decisions",
  untold: 2,
  sendings: [
    {
      file: 9,
      serial: 27,
      name: "a.txt",
      state: "UNKNOWN",
      words: "not known",
      trouble: "The connection was lost.",
      tries: 1,
      nextTryAt: "2026-11-12T10:00:00Z",
      askedAt: "2026-11-12T10:00:00Z",
      askedBy: "Ines Okafor",
      answered: false,
    },
    // the bank answered it: nobody has to do anything about its way
    {
      file: 8,
      serial: 26,
      name: "b.txt",
      state: "STUCK",
      words: "not sent",
      trouble: "",
      tries: 1,
      nextTryAt: "2026-11-12T10:00:00Z",
      askedAt: "2026-11-12T10:00:00Z",
      askedBy: "Ines Okafor",
      answered: true,
    },
  ],
  waiting: 1,
};

describe("what travels", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("says what waits, what was not sent and what the bank was not told, and reads for a reason", async () => {
    const { sent } = serve(<ExchangePage />, {
      answers: {
        "GET /api/bank-accounts": accounts,
        "GET /api/bank-accounts/{id}/exchange": exchange,
        "GET /api/bank-accounts/{id}/exchange/incoming": [incoming],
        "POST /api/bank-incoming/{id}/read": { name: "statement-1.xml", read: true, said: "" },
        "POST /api/bank-accounts/{id}/exchange/decisions": { file: 10 },
      },
    });
    expect(await screen.findByText("1 not sent")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Tell the bank 2 decisions" }));
    fireEvent.click(screen.getByText("statement-1.xml"));
    fireEvent.click(await screen.findByRole("button", { name: "Read it all the same…" }));
    fireEvent.change(await screen.findByLabelText(/Why, although/), {
      target: { value: "the bank says so" },
    });
    fireEvent.click(screen.getByRole("button", { name: "Read it" }));
    await waitFor(() =>
      expect(sent).toContainEqual({ path: "/api/bank-incoming/5/read", body: { gap: "the bank says so" } }),
    );
  });

  it("offers nothing to do to whoever may not", async () => {
    serve(<ExchangePage />, {
      roles: ["AUDITOR"],
      answers: {
        "GET /api/bank-accounts": accounts,
        "GET /api/bank-accounts/{id}/exchange": exchange,
        "GET /api/bank-accounts/{id}/exchange/incoming": [incoming],
      },
    });
    fireEvent.click(await screen.findByText("statement-1.xml"));
    expect(screen.queryByRole("button", { name: "Read what came" })).toBeNull();
    expect(screen.queryByRole("button", { name: "Set it aside…" })).toBeNull();
  });
});

describe("the bank to practise on", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("lets a day pass and says what it was", async () => {
    serve(<PracticePage />, {
      answers: {
        "GET /api/practice": [
          {
            id: 1,
            name: "Operations",
            positivePay: true,
            atTheBank: {
              until: "2026-11-11",
              balance: { text: "1.00", currency: "USD" },
              statement: 12,
              outstanding: 1,
              held: ["statement-1.xml"],
            },
            writes: [
              { name: "COLUMNS_AND_CAMT", words: "fixed columns", chosen: true },
              { name: "LISTS", words: "lists", chosen: false },
            ],
            mischief: [{ name: "PAY_TWICE", words: "pay a check twice", ordered: false }],
          },
          {
            id: 2,
            name: "Harbour Works",
            positivePay: false,
            atTheBank: null,
            writes: [{ name: "LISTS", words: "lists", chosen: true }],
            mischief: [],
          },
        ],
        "POST /api/practice/day": { day: "2026-11-12", today: "2026-11-13", did: ["1 check paid."], came: 2 },
        "POST /api/practice/order": {},
      },
    });
    fireEvent.click(await screen.findByLabelText("pay a check twice"));
    expect(screen.getByRole("button", { name: "Ask for it" })).toBeTruthy();
    expect(screen.getByText("It begins there with the first day that passes.")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Let the day pass" }));
    expect(await screen.findByText("1 check paid.")).toBeTruthy();
    expect(screen.getByText("2 files came")).toBeTruthy();
  });
});
