import { cleanup, fireEvent, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { Problem, serve } from "../tests/served";
import { ClearingPage } from "./ClearingPage";
import { ReconcilePage } from "./ReconcilePage";

const money = (text: string) => ({ text, currency: "USD" });

const ACCOUNTS = [
  { id: 1, name: "Operations", bankName: "Skerrow Trust", currency: "USD", positivePay: true },
];

const exception = (more: Partial<Schemas["ExceptionView"]> = {}): Schemas["ExceptionView"] => ({
  id: 7,
  version: 3,
  day: "2026-11-11",
  amount: money("2,535.69"),
  in: false,
  number: "41741",
  text: "",
  reference: "",
  toldBy: "statement",
  kind: "AMOUNT_DIFFERS",
  kindWords: "amount differs",
  sentence: "Check 41741 is for 2,445.69, the bank paid 2,535.69.",
  check: "41741",
  payee: "Undertow Diving",
  checkAmount: money("2,445.69"),
  late: false,
  proposedAccountName: "",
  words: "",
  answers: [
    {
      answer: "BANKS_ERROR",
      words: "The bank's error: ask it to correct",
      then: "Check 41741 clears at 2,445.69; the bank owes 90.00 until it gives it back.",
      needsReason: true,
      entered: false,
    },
    {
      answer: "OURS",
      words: "Our error: the check says what the bank paid",
      then: "Check 41741 clears at 2,445.69, and the difference of 90.00 is entered.",
      needsReason: true,
      entered: true,
    },
  ],
  ...more,
});

const open = (shown: Schemas["ExceptionView"][]): Schemas["ExceptionsView"] => ({
  kinds: [],
  count: shown.length,
  shown,
  more: 0,
  hasHour: shown.some((one) => one.decideBy),
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});
beforeEach(() => sessionStorage.clear());

describe("what the bank paid", () => {
  it("says what an answer does before it is given, and sends what was seen", async () => {
    const { sent } = serve(<ClearingPage />, {
      at: "/?at=7",
      answers: {
        "GET /api/bank-accounts": ACCOUNTS,
        "GET /api/bank-exceptions": open([exception()]),
        "GET /api/ledger-accounts": [
          {
            id: 5,
            code: "5600",
            name: "Office",
            kind: "EXPENSE",
            kindWords: "expense",
            roles: [],
            open: true,
            version: 0,
          },
          {
            id: 6,
            code: "2000",
            name: "Payables",
            kind: "PAYABLES",
            kindWords: "payables",
            roles: [],
            open: true,
            version: 0,
          },
        ],
        "POST /api/bank-exceptions/answer": { answered: 1, cleared: 1 },
      },
    });
    expect(await screen.findByText(/the bank owes 90.00 until it gives it back/)).toBeTruthy();
    await userEvent.click(screen.getByLabelText("Our error: the check says what the bank paid"));
    expect(screen.getByText(/the difference of 90.00 is entered/)).toBeTruthy();
    expect(await screen.findByRole("option", { name: "5600 Office" })).toBeTruthy();
    // what is owed is kept by its invoices
    expect(screen.queryByRole("option", { name: "2000 Payables" })).toBeNull();
    await userEvent.selectOptions(screen.getByLabelText("Account"), "5");
    await userEvent.type(screen.getByLabelText("Why"), "we typed it wrong");
    await userEvent.click(screen.getByRole("button", { name: "Answer it" }));
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]!.body).toMatchObject({
      account: 1,
      movements: [{ movement: 7, version: 3 }],
      answer: "OURS",
      ledgerAccount: 5,
      why: "we typed it wrong",
    });
  });

  it("keeps the answer on the page when somebody else was first", async () => {
    serve(<ClearingPage />, {
      at: "/?at=7",
      answers: {
        "GET /api/bank-accounts": ACCOUNTS,
        "GET /api/bank-exceptions": open([exception()]),
        "POST /api/bank-exceptions/answer": new Problem(
          409,
          "answered-meanwhile",
          "Check 41741 was answered by somebody else meanwhile.",
        ),
      },
    });
    await userEvent.type(await screen.findByLabelText("Why"), "read as a 5");
    await userEvent.click(screen.getByRole("button", { name: "Answer it" }));
    expect((await screen.findByRole("alert")).textContent).toContain("answered by somebody else");
    expect((screen.getByLabelText("Why") as HTMLTextAreaElement).value).toBe("read as a 5");
  });

  it("shows the hour by which the bank is told, and when it has passed", async () => {
    serve(<ClearingPage />, {
      at: "/?at=7",
      answers: {
        "GET /api/bank-accounts": ACCOUNTS,
        "GET /api/bank-exceptions": open([
          exception({ decideBy: "2026-11-12T14:00:00Z", late: true }),
          exception({ id: 8, number: "41742", decideBy: "2026-11-13T14:00:00Z" }),
        ]),
      },
    });
    expect(await screen.findByText(/The bank's hour to return it passed/)).toBeTruthy();
    expect(screen.getByText("hour passed")).toBeTruthy();
  });

  it("asks why a statement is read that does not follow, and only then", async () => {
    serve(<ClearingPage />, {
      answers: {
        "GET /api/bank-accounts": ACCOUNTS,
        "GET /api/bank-exceptions": open([]),
        "GET /api/bank-reports": [],
        "GET /api/bank-reports/layouts": [{ id: 9, name: "Statement list", use: "STATEMENT" }],
        "POST /api/bank-reports": new Problem(
          409,
          "statement-does-not-follow",
          "This statement does not follow the last one.",
        ),
      },
    });
    await userEvent.click(await screen.findByRole("button", { name: "Read a file of the bank…" }));
    expect(screen.queryByLabelText("Why it is read all the same")).toBeNull();
    // a file that a test gives is none to the check of what is missing
    fireEvent.submit(screen.getByRole("form", { name: "Read a file" }));
    expect(await screen.findByLabelText("Why it is read all the same")).toBeTruthy();
  });
});

describe("bank and ledger", () => {
  const view = (explained: boolean): Schemas["ReconciliationView"] => ({
    from: "2026-11-01",
    until: "2026-11-12",
    on: "2026-11-12",
    bank: money("5,000.00"),
    sections: [
      {
        kind: "OUTSTANDING",
        words: "Checks outstanding",
        about: "posted, and not paid by the bank",
        count: 1,
        sum: money("-1,225.00"),
        rows: [
          { day: "2026-11-13", what: "Check 41237", more: "Gannet Rope Walk", amount: money("-1,225.00") },
        ],
        more: 0,
      },
    ],
    ledger: money("3,775.00"),
    unexplained: money(explained ? "0.00" : "12.00"),
    explained,
    signed: [],
  });
  const page = (explained: boolean, roles: string[]) =>
    serve(<ReconcilePage />, {
      roles,
      answers: { "GET /api/bank-accounts": ACCOUNTS, "GET /api/reconciliations": view(explained) },
    });

  it("is signed by a controller once it is explained", async () => {
    page(true, ["CONTROLLER"]);
    expect(await screen.findByText("Explained to the cent.")).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>("button", { name: /^Sign/ }).disabled).toBe(false);
  });

  it("is signed by nobody while something is not explained", async () => {
    page(false, ["CONTROLLER"]);
    expect(await screen.findByText("12.00 is not explained, so nobody can sign it.")).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>("button", { name: /^Sign/ }).disabled).toBe(true);
  });
});
