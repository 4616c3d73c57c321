import { cleanup, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { Problem, serve, type Answers } from "../tests/served";
import { RoutesPage } from "./RoutesPage";

const step = (more: Partial<Schemas["StepContent"]> = {}): Schemas["StepContent"] => ({
  name: "Approval",
  role: "APPROVER",
  people: [],
  needed: 1,
  remindAfterHours: 24,
  escalateAfterHours: 0,
  secondLine: [],
  ...more,
});
const content: Schemas["PolicyContent"] = {
  routes: [
    { name: "Everyday", accounts: [], totalOver: [], paymentOver: [], marks: [], steps: [step()] },
    {
      name: "Large",
      accounts: [2],
      totalOver: [{ currency: "USD", amount: "60,000.00" }],
      paymentOver: [],
      marks: ["DUPLICATE"],
      steps: [step({ role: undefined, people: [3, 4], needed: 2, escalateAfterHours: 8, secondLine: [5] })],
    },
  ],
};

function open(roles: string[], answers: Answers = {}, kept = true) {
  return serve(<RoutesPage />, {
    path: "/routes",
    roles,
    answers: {
      "GET /api/routes": {
        kept: kept
          ? [
              {
                id: 1,
                from: "2025-11-01",
                content,
                note: "as agreed",
                madeBy: "Ruth Castellane",
                madeAt: "2025-11-01T08:00:00Z",
                state: "NOW",
              },
            ]
          : [],
        marks: [
          { kind: "DUPLICATE", words: "possible duplicate" },
          { kind: "ONE_TIME", words: "one-time payee" },
        ],
        earliest: "2026-11-13",
      },
      "GET /api/people/names": [
        { id: 1, name: "Ines Okafor", roles: ["CLERK"] },
        { id: 3, name: "Maren Lindqvist", roles: ["APPROVER"] },
        { id: 4, name: "Aldo Ferreira", roles: ["APPROVER"] },
        { id: 5, name: "Ruth Castellane", roles: ["CONTROLLER"] },
      ],
      "GET /api/bank-accounts": [
        { id: 1, name: "Operations", currency: "USD" },
        { id: 2, name: "Continental", currency: "EUR" },
      ],
      "GET /api/batches": [],
      ...answers,
    },
  });
}

describe("the routes of approval", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("read in words, from the lightest to the strictest", async () => {
    open(["APPROVER"]);
    const large = await screen.findByRole("region", { name: "Route 2" });
    expect(large.textContent).toContain("a total over 60,000.00 USD; a payment marked possible duplicate");
    expect(large.textContent).toContain("Only for Continental.");
    expect(large.textContent).toContain("2 of Maren Lindqvist, Aldo Ferreira");
    expect(large.textContent).toContain("after 8 h also Ruth Castellane");
    expect(screen.queryByRole("button", { name: "Change the routes" })).toBeNull();
  });

  it("are said to ask one approver before any were kept", async () => {
    open(["CONTROLLER"], {}, false);
    expect(await screen.findByText(/one approver is asked for every batch/)).toBeTruthy();
  });

  it("warn before they are kept, and are kept from a day with a reason", async () => {
    const { user, sent } = open(["CONTROLLER"], {
      "POST /api/routes/check": { warnings: ["Route “Large” can never be completed."] },
      "POST /api/routes": undefined,
    });
    await user.click(await screen.findByRole("button", { name: "Change the routes" }));
    const large = screen.getByRole("region", { name: "Route 2" });
    await user.clear(within(large).getByLabelText("a total over, USD"));
    await user.type(within(large).getByLabelText("a payment over, USD"), "9000");
    await user.click(within(large).getByLabelText("one-time payee"));
    await user.click(within(large).getByRole("button", { name: "Add a step" }));
    await user.selectOptions(within(large).getByLabelText("Who takes step 2"), "CONTROLLER");
    await user.click(screen.getByRole("button", { name: "Keep these routes…" }));
    const dialog = await screen.findByRole("dialog");
    expect(within(dialog).getByText("Route “Large” can never be completed.")).toBeTruthy();
    await user.type(within(dialog).getByLabelText("Why they change"), "the audit");
    await user.click(within(dialog).getByRole("button", { name: "Keep the routes" }));
    expect(sent[1]).toMatchObject({
      path: "/api/routes",
      body: {
        from: "2026-11-13",
        note: "the audit",
        content: {
          routes: [
            content.routes[0],
            {
              name: "Large",
              totalOver: [],
              paymentOver: [{ currency: "USD", amount: "9000" }],
              marks: ["DUPLICATE", "ONE_TIME"],
              steps: [{ people: [3, 4] }, { role: "CONTROLLER", needed: 1 }],
            },
          ],
        },
      },
    });
  });

  it("can be put in another order, but the first stays first", async () => {
    const { user } = open(["CONTROLLER"]);
    await user.click(await screen.findByRole("button", { name: "Change the routes" }));
    await user.click(screen.getByRole("button", { name: "Add a stricter route" }));
    const up = screen.getByRole("button", { name: "Make “Large” lighter" }) as HTMLButtonElement;
    expect(up.disabled).toBe(true);
    await user.click(screen.getByRole("button", { name: "Make “Large” stricter" }));
    expect((screen.getByLabelText("Name of route 3") as HTMLInputElement).value).toBe("Large");
    await user.click(screen.getByRole("button", { name: "Leave it as it was" }));
    expect(screen.queryByRole("region", { name: "Route 3" })).toBeNull();
  });

  it("are tried out on a batch that is only thought of", async () => {
    const { user, sent } = open(["CONTROLLER"], {
      "POST /api/routes/try": {
        asking: "A batch on Operations, total 70,000.00 USD",
        route: {
          route: "Large",
          why: "the total 70,000.00 is over 60,000.00",
          sent: false,
          steps: [],
          considered: [
            { route: "Everyday", asked: true, why: "every batch may take it" },
            { route: "Large", asked: true, why: "the total is over" },
          ],
          shortOf: "Second",
        },
      },
    });
    await user.type(await screen.findByLabelText("Total"), "70,000.00");
    await user.click(screen.getByLabelText("possible duplicate"));
    await user.click(screen.getByRole("button", { name: "Try it" }));
    expect(sent[0]?.body).toMatchObject({
      account: 1,
      total: "70,000.00",
      largest: "0",
      marks: ["DUPLICATE"],
    });
    expect(await screen.findByText(/Step “Second” stays short of people/)).toBeTruthy();
    expect(screen.getByText(/✓ Everyday: every batch may take it/)).toBeTruthy();
  });

  it("say in place what was wrong with a try", async () => {
    const { user } = open(["CONTROLLER"], {
      "POST /api/routes/try": new Problem(422, "amount-unreadable", "“seventy” is not an amount."),
    });
    await user.type(await screen.findByLabelText("Total"), "seventy");
    await user.click(screen.getByRole("button", { name: "Try it" }));
    expect((await screen.findByRole("alert")).textContent).toContain("“seventy” is not an amount");
    expect((screen.getByLabelText("Total") as HTMLInputElement).value).toBe("seventy");
  });
});
