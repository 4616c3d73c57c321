import { cleanup, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { serve } from "../tests/served";
import { AskedPage } from "./AskedPage";
import { UndoPage } from "./UndoPage";

const payment = (id: number, more: Partial<Schemas["UndoneView"]> = {}): Schemas["UndoneView"] => ({
  payment: id,
  check: id + 100,
  name: `Check ${id}`,
  payee: `Payee ${id}`,
  amount: { text: "1,225.00", currency: "USD" },
  checkDate: "2026-01-28",
  ledgerDate: "2026-01-28",
  date: "2026-03-10",
  period: "March 2026",
  lines: [
    { account: "1010 Cash", debit: "1,225.00", credit: "" },
    { account: "2000 Payables", debit: "", credit: "1,225.00" },
  ],
  items: [
    {
      invoice: 7,
      reference: "R-7",
      becomes: "open again",
      fate: "OPEN",
      moves: "1,250.00",
      openBefore: "0.00",
      openAfter: "1,250.00",
      discount: "25.00",
      lost: true,
    },
  ],
  discountLost: "25.00",
  year: "",
  bank: "The void goes into its next file.",
  warning: "",
  ...more,
});

const view = (
  payments: Schemas["UndoneView"][],
  more: Partial<Schemas["UndoView"]> = {},
): Schemas["UndoView"] => ({
  what: payments.length === 1 ? "check 1" : `${payments.length} checks`,
  paper: true,
  comesBack: false,
  payments,
  amounts: [{ text: "2,450.00", currency: "USD" }],
  recap: [{ period: "March 2026", account: "1010 Cash", debit: "2,450.00", credit: "", currency: "USD" }],
  months: [
    {
      period: "January 2026",
      locked: true,
      lines: [
        {
          account: "1010 Cash",
          currency: "USD",
          before: "-1.00",
          after: "-1.00",
          from: -1,
          to: -1,
          moves: false,
        },
      ],
    },
  ],
  byTwo: false,
  refused: payments.filter((one) => one.refused).length,
  ...more,
});

const ACCOUNTS = [
  { id: 5, code: "4950", name: "Recovered payments", kind: "INCOME", kindWords: "income", open: true },
  { id: 6, code: "1010", name: "Cash", kind: "CASH", kindWords: "cash", open: true },
];

function several(answer: Schemas["UndoView"], more: Record<string, unknown> = {}) {
  return serve(<UndoPage />, {
    path: "/undo",
    at: "/undo?payments=1-2",
    roles: ["CLERK"],
    answers: {
      "POST /api/undoing/preview": answer,
      "GET /api/batches": [],
      "GET /api/ledger-accounts": ACCOUNTS,
      ...more,
    },
  });
}

describe("undoing payments", () => {
  afterEach(() => {
    cleanup();
    sessionStorage.clear();
    vi.restoreAllMocks();
  });

  it("shows each with its own effect, what is lost and the months that stand", async () => {
    several(view([payment(1), payment(2)]));
    expect(
      ((await screen.findByRole("button", { name: "Void 2 checks…" })) as HTMLButtonElement).disabled,
    ).toBe(false);
    expect(screen.getByText(/discount 25.00 is lost/)).toBeTruthy();
    expect(screen.getByText("locked, does not move")).toBeTruthy();
    expect(screen.getByText(/next file/)).toBeTruthy();
  });

  it("does none of them while one cannot be undone, and lets that one be left out", async () => {
    several(
      view([payment(1), payment(2, { lines: [], items: [], refused: "Check 2 cleared at the bank." })]),
    );
    expect(
      ((await screen.findByRole("button", { name: "Void 2 checks…" })) as HTMLButtonElement).disabled,
    ).toBe(true);
    expect(screen.getByText(/then none is/)).toBeTruthy();
    await userEvent.click(screen.getByText("Check 2 cleared at the bank."));
    await userEvent.click(await screen.findByRole("button", { name: "Leave Check 2 out" }));
    await waitFor(() => expect(screen.queryByRole("button", { name: "Leave Check 2 out" })).toBeNull());
  });

  it("asks for the fate in words, and for a second person where invoices are cancelled", async () => {
    const { sent } = several(view([payment(1), payment(2)], { byTwo: true }), {
      "POST /api/undoing": { id: 9, waits: true },
    });
    await userEvent.click(await screen.findByRole("button", { name: "Invoices: come back open" }));
    await userEvent.click(screen.getByRole("button", { name: /are cancelled against one account/ }));
    await userEvent.click(await screen.findByRole("button", { name: /choose the account/ }));
    expect(screen.queryByText("1010 Cash", { selector: "[role=dialog] *" })).toBeNull();
    await userEvent.click(await screen.findByRole("button", { name: /4950 Recovered payments/ }));
    await userEvent.click(
      await screen.findByRole("button", { name: "Ask a second person to void 2 checks…" }),
    );
    const dialog = await screen.findByRole("dialog");
    await userEvent.type(within(dialog).getByLabelText("Why, for whoever agrees"), "recovered");
    await userEvent.click(
      within(dialog).getByRole("button", { name: "Ask a second person to void 2 checks" }),
    );
    const deeds = () => sent.filter((one) => one.path === "/api/undoing");
    await waitFor(() => expect(deeds()).toHaveLength(1));
    expect(deeds()[0]!.body).toMatchObject({
      reason: "recovered",
      asked: { others: { how: "ONE_ACCOUNT", account: 5 } },
    });
  });

  it("lets the second person see what it would do, and who may not is told", async () => {
    const whole = (mayDecide: boolean): Schemas["UndoingWhole"] => ({
      asked: {
        id: 9,
        kind: "UNDO",
        asksTo: "undo",
        who: "Ines Okafor",
        at: "2026-03-10T08:00:00Z",
        on: "2026-03-10",
        reason: "recovered",
        names: ["Check 1, Payee 1"],
        count: 1,
        amounts: [],
        mine: false,
        mayDecide,
      },
      state: "waits for a second person",
      decided: "",
      would: view([payment(1)], { byTwo: true }),
    });
    serve(<AskedPage />, {
      path: "/undo/:id",
      at: "/undo/9",
      roles: ["APPROVER"],
      answers: { "GET /api/undoing/{id}": whole(true) },
    });
    expect(
      ((await screen.findByRole("button", { name: "Void check 1…" })) as HTMLButtonElement).disabled,
    ).toBe(false);
    expect(screen.getByText(/“recovered”/)).toBeTruthy();
    cleanup();
    serve(<AskedPage />, {
      path: "/undo/:id",
      at: "/undo/9",
      roles: ["APPROVER"],
      answers: { "GET /api/undoing/{id}": whole(false) },
    });
    expect(await screen.findByText(/neither asked nor prepared/)).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Void check 1…" })).toBeNull();
  });
});
