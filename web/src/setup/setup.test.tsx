import { cleanup, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { Problem, serve, type Answers } from "../tests/served";
import { BankAccountPage } from "./BankAccountPage";
import { SetupPage } from "./SetupPage";
import { Home } from "./useSetup";
import { WhatIsMissing } from "./WhatIsMissing";

const step = (more: Partial<Schemas["SetupStepView"]>): Schemas["SetupStepView"] => ({
  step: "COMPANY",
  title: "The company",
  done: false,
  optional: false,
  missing: "Give its name and its address.",
  unlocks: "its name and address stand on every check",
  doneBy: "controller or administrator",
  mine: true,
  address: "/company",
  ...more,
});
const DONE = step({
  step: "MONTH",
  title: "The months of today and of the first run",
  done: true,
  missing: "",
});
const ROUTES = step({ step: "ROUTES", title: "Routes of approval", optional: true, mine: false });

const account = (more: Partial<Schemas["AccountPage"]> = {}): Schemas["AccountPage"] => ({
  id: 5,
  name: "Operations",
  bankName: "Skerrow Trust",
  currency: "USD",
  routingNumber: "990044105",
  accountNumber: "…0931",
  cash: "1010 Cash",
  decisionHour: "",
  floor: "250,000.00",
  smallest: "0.00",
  layout: "",
  otherWays: [{ method: "CREDIT_TRANSFER", words: "credit transfer" }],
  ways: [
    {
      id: 1,
      name: "Checks",
      words: "check",
      elsewhere: false,
      byFile: false,
      owed: "",
      series: {
        id: 50,
        prefix: "",
        first: 41200,
        next: 41250,
        stock: "blank stock",
        micr: "C########C|KC",
        currencyWord: "dollars",
        validity: "",
        printed: true,
        printsNumbers: true,
        sameNumberReprint: false,
        signing: { pictured: false, upTo: "", secondAbove: "", most: "" },
      },
    },
  ],
  holidays: [{ day: "2026-12-25", name: "Christmas Day" }],
  inUse: "",
  version: 2,
  mayChange: true,
  maySet: true,
  mayCorrect: true,
  maySign: true,
  ...more,
});

function open(view: Schemas["AccountPage"], answers: Answers = {}) {
  sessionStorage.clear();
  return serve(<BankAccountPage />, {
    path: "/bank-accounts/:id",
    at: "/bank-accounts/5",
    roles: ["ADMINISTRATOR"],
    answers: {
      "GET /api/bank-accounts/{id}": view,
      "GET /api/bank-file-layouts": [{ id: 9, name: "Plain, 100 characters a check" }],
      ...answers,
    },
  });
}

describe("setting up", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("names each step, what it unlocks, and whose it is", async () => {
    serve(<SetupPage />, {
      answers: { "GET /api/setup": { ready: false, steps: [step({}), DONE, ROUTES] } },
    });
    const steps = within(await screen.findByRole("list", { name: "Steps" })).getAllByRole("listitem");
    expect(steps[0]!.textContent).toContain("Give its name and its address.");
    expect(steps[0]!.textContent).toContain("This is yours to do.");
    expect(steps[1]!.textContent).toContain("done");
    expect(steps[2]!.textContent).toContain("can wait");
    // what can wait holds nothing up
    expect(screen.getByText("hold up the first check").textContent).toBeTruthy();
    expect(screen.getByText("1 of 3")).toBeTruthy();
  });

  it("begins at what is missing until nothing holds up the first check", async () => {
    serve(<Home />, { answers: { "GET /api/setup": { ready: false, steps: [step({})] } } });
    expect((await screen.findByLabelText("went to")).textContent).toBe("/setup");
    cleanup();
    serve(<Home />, { answers: { "GET /api/setup": { ready: true, steps: [ROUTES] } } });
    expect((await screen.findByLabelText("went to")).textContent).toBe("/due");
  });

  it("says beside an empty list what is missing, and nothing more once all is there", async () => {
    serve(<WhatIsMissing>Nothing is due.</WhatIsMissing>, {
      answers: { "GET /api/setup": { ready: false, steps: [step({}), ROUTES] } },
    });
    expect(await screen.findByRole("link", { name: "The company" })).toBeTruthy();
    expect(screen.queryByRole("link", { name: "Routes of approval" })).toBeNull();
    cleanup();
    serve(<WhatIsMissing>Nothing is due.</WhatIsMissing>, {
      answers: { "GET /api/setup": { ready: true, steps: [DONE] } },
    });
    expect(screen.getByText("Nothing is due.")).toBeTruthy();
    expect(screen.queryByText(/this is missing/)).toBeNull();
  });
});

describe("a bank account", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("refuses a series that overlaps at its field and keeps what was typed", async () => {
    const { user, sent } = open(account(), {
      "POST /api/bank-accounts/{id}/series": new Problem(
        422,
        "series-overlap",
        "The series Checks has these.",
        {
          first: "The series Checks has these.",
        },
      ),
    });
    await user.click(await screen.findByRole("button", { name: "Add checks with their numbers…" }));
    const first = screen.getByLabelText("First number") as HTMLInputElement;
    await user.type(first, "4x");
    await user.click(screen.getByRole("button", { name: "Add these checks" }));
    expect((await screen.findByRole("alert")).textContent).toBe("The series Checks has these.");
    // what is no number is sent as one that cannot be
    expect(sent.at(-1)?.body).toMatchObject({ first: 0, wayName: "Checks", stock: "BLANK" });
    expect(first.value).toBe("4x");
  });

  it("has a next number proposed by one and confirmed by another", async () => {
    const waiting = (mine: boolean) => {
      const view = account();
      view.ways[0]!.series!.correction = {
        to: 41300,
        reason: "a box is missing",
        who: "Ruth Castellane",
        mine,
      };
      return view;
    };
    const { user, sent } = open(waiting(false), { "POST /api/series/{id}/next-number/confirm": {} });
    expect(await screen.findByText(/“a box is missing”/)).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Confirm 41300" }));
    await waitFor(() => expect(sent.at(-1)?.path).toBe("/api/series/50/next-number/confirm"));
    cleanup();
    open(waiting(true));
    expect(await screen.findByRole("button", { name: "Take it back" })).toBeTruthy();
    expect(screen.queryByRole("button", { name: /Confirm/ })).toBeNull();
  });

  it("says what keeps it open, and lets only an administrator set up what hangs on it", async () => {
    open(account({ inUse: "2 payments outstanding" }));
    expect(await screen.findByText(/2 payments outstanding/)).toBeTruthy();
    expect(screen.queryByRole("button", { name: /Close Operations/ })).toBeNull();
    cleanup();
    open(account({ maySet: false, mayCorrect: true }));
    expect(await screen.findByRole("button", { name: "Correct the next number…" })).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Begin…" })).toBeNull();
    expect(screen.queryByRole("button", { name: "Add holidays…" })).toBeNull();
  });
});
