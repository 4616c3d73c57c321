import { cleanup, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { serve } from "../tests/served";
import { StatementPart } from "./StatementPart";

const dollars = (text: string) => ({ text, currency: "USD" });

const payment = (id: number, matched: boolean): Schemas["CardPayment"] => ({
  payment: id,
  number: `88213-0${id}`,
  payee: `Payee ${id}`,
  paidOn: "2026-11-03",
  amount: dollars("40.00"),
  matched,
});

const statement = (more: Partial<Schemas["StatementView"]> = {}): Schemas["StatementView"] => ({
  card: "Company card",
  billed: dollars("80.00"),
  matched: dollars("40.00"),
  rest: dollars("40.00"),
  level: false,
  settled: false,
  payments: [payment(1, true), payment(2, false)],
  ...more,
});

const open = (view: Schemas["StatementView"]) =>
  serve(<StatementPart document={{ id: 7 } as Schemas["InvoicePage"]} />, {
    answers: {
      "GET /api/invoices/{id}/statement": view,
      "POST /api/invoices/{id}/statement": { ...view, matched: dollars("80.00"), level: true },
    },
  });

describe("a card's statement", () => {
  beforeEach(() => sessionStorage.clear());
  afterEach(cleanup);

  it("is matched to payments by its card", async () => {
    const { sent, user } = open(statement());
    expect(screen.queryByRole("button", { name: "Keep what stands on it" })).toBeNull();
    await user.click(await screen.findByLabelText("Payment 88213-02 stands on it"));
    await user.click(screen.getByRole("button", { name: "Keep what stands on it" }));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toEqual({ path: "/api/invoices/7/statement", body: { payments: [1, 2] } });
  });

  it("marks the payments that copied lines name, and tells what they name nothing by", async () => {
    const { sent, user } = serve(<StatementPart document={{ id: 7 } as Schemas["InvoicePage"]} />, {
      answers: {
        "GET /api/invoices/{id}/statement": statement(),
        "POST /api/invoices/{id}/statement/lines": {
          matched: [2],
          others: [{ line: "YEARLY FEE 95.00", why: "no payment of 95.00 was recorded" }],
        },
        "POST /api/invoices/{id}/statement": statement({ level: true }),
      },
    });
    await user.click(await screen.findByRole("button", { name: "Match its lines…" }));
    await user.type(await screen.findByLabelText(/Its lines/), "88213-02 40.00");
    await user.click(screen.getByRole("button", { name: "Match them" }));
    await screen.findByText("no payment of 95.00 was recorded");
    await user.click(screen.getByRole("button", { name: "Close" }));
    await user.click(await screen.findByRole("button", { name: "Keep what stands on it" }));
    await waitFor(() => expect(sent.at(-1)?.body).toEqual({ payments: [1, 2] }));
  });

  it("stays as it is once something of it is paid", async () => {
    open(statement({ settled: true }));
    const box = await screen.findByLabelText("Payment 88213-01 stands on it");
    expect((box as HTMLInputElement).disabled).toBe(true);
  });

  it("says nothing of a document that bills the card nothing", async () => {
    open(statement({ billed: dollars("0.00"), level: true, payments: [payment(2, false)] }));
    await waitFor(() => expect(document.querySelector("h2")).toBeNull());
  });
});
