import { cleanup, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { Problem, serve, type Answers } from "../tests/served";
import { ApprovalPage } from "./ApprovalPage";

type Asked = Schemas["AskedView"];
type Claim = Schemas["AskedClaim"];

function claim(id: number, payee: string, amount: string, more: Partial<Claim> = {}): Claim {
  return {
    id,
    vendor: id,
    payee,
    number: "",
    address: "1 Quay, Skerrow",
    bank: "",
    amount,
    lines: 1,
    since: "FIRST",
    marks: [],
    inTheWay: [],
    ...more,
  };
}

const mark = {
  key: "FIRST_PAYMENT 1",
  kind: "FIRST_PAYMENT",
  words: "first payment",
  reason: "This is the first payment to Moonraker.",
  facts: [],
};

function asked(more: Partial<Asked> = {}): Asked {
  return {
    id: 7,
    name: "Week 46",
    note: "",
    account: "Operations",
    currency: "USD",
    by: "check",
    checkDate: "2026-11-13",
    ledgerDate: "2026-11-13",
    state: "IN_APPROVAL",
    stateWords: "in approval",
    amount: "300.00",
    sentBy: "Ines Okafor",
    hands: ["Ines Okafor"],
    round: 1,
    route: {
      route: "Everyday",
      why: "nothing",
      sent: true,
      steps: [],
      considered: [],
      shortOf: "",
      now: "2026-11-12T09:00:00Z",
    },
    seen: "ab".repeat(32),
    mayApprove: true,
    mayDecline: true,
    whyNot: "",
    claims: [claim(1, "Moonraker", "100.00", { marks: [mark] }), claim(2, "Bollard", "200.00")],
    gone: [],
    struck: [],
    notes: [],
    marked: 1,
    changed: 0,
    compared: false,
    elsewhere: false,
    ...more,
  };
}

function open(view: Asked, answers: Answers = {}) {
  return serve(<ApprovalPage />, {
    path: "/approval/:id",
    at: "/approval/7",
    roles: ["APPROVER"],
    answers: {
      "GET /api/approval/{id}": view,
      "GET /api/approval/{id}/claims/{claim}": [],
      "GET /api/slips/claims/{batch}/{claim}": { title: "", address: [] },
      "GET /api/batches/{id}/level": { level: true, tallies: [], vials: [], voidedCount: 0, voided: "0.00" },
      ...answers,
    },
  });
}

describe("an approver's page", () => {
  beforeEach(() => sessionStorage.clear());
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("tells an approver that the money has left, under which number", async () => {
    open(
      asked({
        elsewhere: true,
        note: "Ordered by the harbour master",
        claims: [claim(1, "Fathom", "2,150.00", { number: "FT 2304-11", inTheWay: ["Fathom is held"] })],
      }),
    );
    await screen.findByText("paid elsewhere already");
    await screen.findByText("FT 2304-11");
    await screen.findByText("Fathom is held. It was paid nevertheless.");
    await screen.findByText("“Ordered by the harbour master”");
  });

  it("shows what deserves a look first, and the slip of the first payment", async () => {
    open(asked());
    const grid = await screen.findByRole("grid", { name: "Payments" });
    expect(
      within(grid)
        .getAllByRole("row")
        .slice(1)
        .map((row) => row.textContent),
    ).toEqual([expect.stringContaining("Moonrakerfirst payment"), expect.stringContaining("Bollard")]);
    expect(screen.getByText("This is the first payment to Moonraker.")).toBeTruthy();
  });

  it("approves exactly what is in front of its reader, and names what is marked", async () => {
    const { user, sent } = open(asked(), { "POST /api/batches/{id}/approve": undefined });
    await user.click(await screen.findByRole("button", { name: "Approve…" }));
    const dialog = screen.getByRole("dialog");
    expect(within(dialog).getByText(/Marked: Moonraker \(first payment\)/)).toBeTruthy();
    await user.click(within(dialog).getByRole("button", { name: "Approve 300.00" }));
    expect(sent).toEqual([{ path: "/api/batches/7/approve", body: { seen: "ab".repeat(32) } }]);
    expect((await screen.findByLabelText("went to")).textContent).toBe("/approval");
  });

  it("stays with the sentence when the batch changed meanwhile", async () => {
    const { user } = open(asked(), {
      "POST /api/batches/{id}/approve": new Problem(
        409,
        "seen-other",
        "This batch changed since you opened it.",
      ),
    });
    await user.click(await screen.findByRole("button", { name: "Approve…" }));
    await user.click(screen.getByRole("button", { name: "Approve 300.00" }));
    expect((await screen.findByRole("alert")).textContent).toContain("changed since you opened it");
    expect(screen.getByRole("dialog")).toBeTruthy();
  });

  it("strikes the payment under the cursor by one key, with a reason", async () => {
    const { user, sent } = open(asked(), { "POST /api/batches/{id}/strike": undefined });
    const grid = await screen.findByRole("grid", { name: "Payments" });
    grid.focus();
    await user.keyboard("{ArrowDown}x");
    const dialog = screen.getByRole("dialog", { name: "Strike the payment to Bollard, 200.00" });
    await user.type(within(dialog).getByLabelText("Why it is not paid now"), "ordered twice");
    await user.click(within(dialog).getByRole("button", { name: "Strike 200.00" }));
    expect(sent).toEqual([{ path: "/api/batches/7/strike", body: { claims: [2], reason: "ordered twice" } }]);
  });

  it("sends the notes at single payments along when it goes back, and keeps them over a reload", async () => {
    const first = open(asked());
    const field = await screen.findByLabelText(/Note for its preparer/);
    await first.user.type(field, "wrong address");
    cleanup();
    const { user, sent } = open(asked(), { "POST /api/batches/{id}/send-back": undefined });
    await user.click(await screen.findByRole("button", { name: "Send back with 1…" }));
    const dialog = screen.getByRole("dialog");
    expect(within(dialog).getByText(/“wrong address”/)).toBeTruthy();
    await user.click(within(dialog).getByRole("button", { name: "Send back" }));
    expect(sent).toEqual([
      {
        path: "/api/batches/7/send-back",
        body: { reason: "", notes: [{ claim: 1, note: "wrong address" }] },
      },
    ]);
  });

  it("lets only what changed stand out after a return", async () => {
    open(
      asked({
        compared: true,
        changed: 1,
        gone: [{ payee: "Kittiwake", amount: "50.00" }],
        claims: [
          claim(1, "Moonraker", "100.00", { since: "CHANGED", was: "150.00" }),
          claim(2, "Bollard", "200.00", { since: "SAME" }),
        ],
      }),
    );
    const grid = await screen.findByRole("grid", { name: "Payments" });
    const rows = within(grid)
      .getAllByRole("row")
      .slice(1)
      .map((row) => row.textContent);
    expect(rows[0]).toContain("Changed since it was sent before (2)");
    expect(rows[0]).toContain("gone: Kittiwake 50.00");
    expect(rows[1]).toContain("150.00");
    expect(rows[2]).toContain("As it was before (1)");
    expect(rows[3]).toContain("as before");
  });

  it("says why it is not for its reader, and offers nothing", async () => {
    open(asked({ mayApprove: false, mayDecline: false, whyNot: "The step waits for others." }));
    expect(await screen.findByText("The step waits for others.")).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Approve…" })).toBeNull();
    expect(screen.queryByLabelText(/Note for its preparer/)).toBeNull();
  });

  it("leaves striking and sending back to whoever approved already", async () => {
    open(asked({ mayApprove: false, whyNot: "You answered for this batch already." }));
    expect(await screen.findByRole("button", { name: "Send back…" })).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Approve…" })).toBeNull();
  });

  it("warns of what is in the way by name", async () => {
    const { user } = open(
      asked({
        claims: [claim(2, "Bollard", "200.00", { inTheWay: ["the vendor is held, dispute"] })],
      }),
    );
    expect(await screen.findByText(/It is refused at printing as it stands/)).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Approve…" }));
    expect(
      within(screen.getByRole("dialog")).getByText(
        /Will not be printed as it stands: Bollard: the vendor is held/,
      ),
    ).toBeTruthy();
  });

  it("steps from payment to payment beside the list", async () => {
    const { user } = open(asked());
    await user.click(await screen.findByRole("button", { name: "Next payment" }));
    expect(screen.getByRole("heading", { name: "Bollard" })).toBeTruthy();
    expect((screen.getByRole("button", { name: "Next payment" }) as HTMLButtonElement).disabled).toBe(true);
  });
});
