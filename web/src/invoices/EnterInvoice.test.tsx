import { cleanup, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Problem, serve, type Answers } from "../tests/served";
import { EnterInvoice } from "./EnterInvoice";

const BESIDE = { open: [{ text: "300.00", currency: "USD" }], count: 2, last: [], likely: [] };

function enter(answers: Answers = {}) {
  sessionStorage.clear();
  return serve(<EnterInvoice />, {
    path: "/enter",
    answers: {
      "GET /api/ledger-accounts": [
        {
          id: 5,
          code: "5200",
          name: "Chandlery",
          kind: "EXPENSE",
          kindWords: "expense",
          roles: [],
          open: true,
        },
        {
          id: 6,
          code: "5300",
          name: "Galley",
          kind: "EXPENSE",
          kindWords: "expense",
          roles: [],
          open: false,
        },
      ],
      "GET /api/vendors": [{ id: 7, number: "V1007", name: "Gannet Rope Walk", group: "Chandlery" }],
      "GET /api/invoices/preview": {
        terms: "net 30",
        dueDate: "2026-12-12",
        currency: "USD",
        total: "1,250.00",
      },
      "GET /api/invoices/beside": BESIDE,
      ...answers,
    },
  });
}

describe("an invoice by hand", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("shows what is known of the vendor, and what may be in already as soon as its reference is typed", async () => {
    const { user } = enter({
      "GET /api/invoices/beside": {
        ...BESIDE,
        likely: [
          {
            entry: 71,
            reference: "GRW-02217",
            date: "2026-11-02",
            amount: { text: "120.00", currency: "USD" },
            words: "the same reference",
          },
        ],
      },
    });
    await user.type(await screen.findByLabelText(/Vendor, by number/), "V1007");
    await user.type(screen.getByLabelText(/Their reference/), "GRW 2217");
    expect((await screen.findByRole("status")).textContent).toContain("the same reference");
    expect(screen.getByText("300.00 USD")).toBeTruthy();
    expect(await screen.findByText(/net 30: due/)).toBeTruthy();
  });

  it("keeps what was typed when it is refused, and says why", async () => {
    const { user, sent } = enter({
      "POST /api/invoices": new Problem(422, "known", "GRW 2217 of this vendor is in already.", {
        reference: "GRW 2217 of this vendor is in already.",
      }),
    });
    await user.type(await screen.findByLabelText(/Vendor, by number/), "V1007");
    const reference = screen.getByLabelText(/Their reference/) as HTMLInputElement;
    await user.type(reference, "GRW 2217");
    await user.type(screen.getByLabelText("Account of line 1"), "5200");
    await user.type(screen.getByLabelText("Amount of line 1"), "1,250.00{Enter}");
    expect((await screen.findByText(/is in already/)).getAttribute("role")).toBe("alert");
    expect(reference.value).toBe("GRW 2217");
    expect(sent.at(-1)?.body).toMatchObject({ vendor: 7, lines: [{ account: 5, amount: "1,250.00" }] });
  });

  it("takes no account that is closed or unknown", async () => {
    const { user, sent } = enter();
    await user.type(await screen.findByLabelText(/Vendor, by number/), "V1007");
    await user.type(screen.getByLabelText("Account of line 1"), "5300");
    await user.type(screen.getByLabelText("Amount of line 1"), "10{Enter}");
    await waitFor(() => expect(screen.getByText(/There is no account “5300”/)).toBeTruthy());
    expect(sent).toEqual([]);
  });
});
