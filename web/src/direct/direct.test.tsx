import { cleanup, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { Problem, serve } from "../tests/served";
import { DirectPage } from "./DirectPage";
import { EMPTY, withDays } from "./rows";
import { SchedulesPage } from "./SchedulesPage";

const WAY: Schemas["DirectWay"] = {
  account: 1,
  accountName: "Operations",
  currency: "USD",
  way: 9,
  name: "Checks",
  methodWords: "check",
  byCheck: true,
  byIban: true,
};

const day = (dueOn: string, way = 9): Schemas["Proposed"] => ({
  schedule: 5,
  name: "Ticket hall lease",
  dueOn,
  account: 1,
  way,
  paidBy: "Checks, Operations",
  vendor: "V7",
  vendorName: "Harbour Authority",
  said: "5400",
  reference: "HALL",
  amount: { text: "1,850.00", currency: "USD" },
});

const looked = (row: Schemas["DirectRow"]): Schemas["LookedDirect"] =>
  row.vendor.startsWith("V")
    ? {
        vendor: 4,
        payee: "Harbour Authority",
        debits: [{ what: "5400 Galley", amount: row.amount }],
        says: "",
        fields: {},
      }
    : {
        payee: "",
        debits: [],
        says: "",
        problem: "No vendor is called so.",
        code: "no-vendor",
        fields: { vendor: "No vendor is called so." },
      };

describe("days of schedules", () => {
  it("are taken in once, below what is typed", () => {
    const typed = { ...EMPTY, vendor: "V1" };
    const once = withDays([typed, EMPTY], [day("2026-11-15")]);
    expect(once).toHaveLength(2);
    expect(once[1]).toMatchObject({ vendor: "V7", schedule: 5, dueOn: "2026-11-15" });
    expect(withDays(once, [day("2026-11-15"), day("2026-12-15")])).toHaveLength(3);
  });
});

describe("paying without an invoice", () => {
  beforeEach(() => sessionStorage.clear());
  afterEach(cleanup);

  const page = (more: Record<string, unknown> = {}) =>
    serve(<DirectPage />, {
      path: "/direct/new",
      answers: {
        "GET /api/direct/ways": [WAY],
        "GET /api/vendors": [],
        "GET /api/schedules/days": { until: "2026-11-19", days: [day("2026-11-15"), day("2026-11-16", 12)] },
        "POST /api/direct/look": ({ rows }: Schemas["DirectAsked"]) => ({
          rows: rows.map(looked),
          total: "1,850.00",
          problems: rows.filter((row) => !row.vendor.startsWith("V")).length,
        }),
        "POST /api/direct": 77,
        ...more,
      },
    });

  it("takes in what falls due this way, and sends it with its day", async () => {
    const { sent } = page();
    const user = userEvent.setup();
    await user.click(await screen.findByRole("button", { name: "Take it in" }));
    await screen.findByText(/1 waits for other ways/);
    await screen.findByText(/5400 Galley/);
    await user.click(screen.getByRole("button", { name: "Make it and send it for approval" }));
    const made = () => sent.find((one) => one.path === "/api/direct");
    await waitFor(() => expect(made()).toBeDefined());
    expect(made()!.body).toMatchObject({
      way: 9,
      checkDate: "2026-11-12",
      send: true,
      rows: [{ vendor: "V7", schedule: 5, dueOn: "2026-11-15", amount: "1,850.00" }],
    });
  });

  it("calls a typing the same until it is cleared, so that it is made once", async () => {
    const { sent } = page({ "POST /api/direct": new Problem(409, "made-already", "It was made already.") });
    const user = userEvent.setup();
    const press = async () => {
      await user.type(await screen.findByLabelText("Payee of row 1"), "V7");
      await user.click(screen.getByRole("button", { name: "Make the batch" }));
      await screen.findByText("It was made already.");
    };
    const names = () =>
      sent
        .filter((one) => one.path === "/api/direct")
        .map((one) => (one.body as Schemas["DirectWanted"]).typedAs);
    await press();
    await user.click(screen.getByRole("button", { name: "Make the batch" }));
    await waitFor(() => expect(names()).toHaveLength(2));
    expect(names()[0]).not.toBe("");
    expect(names()[1]).toBe(names()[0]);
    await user.click(screen.getByRole("button", { name: "Clear" }));
    await press();
    expect(names()[2]).not.toBe(names()[0]);
  });

  it("enters a payee who is paid once beside the row, and goes on with its number", async () => {
    const { sent } = page({
      "POST /api/direct/payees": { vendor: 8, number: "V88", waits: true },
    });
    const user = userEvent.setup();
    await user.type(await screen.findByLabelText("Payee of row 1"), "Wreck Diver");
    await screen.findByText("No vendor is called so.");
    await user.type(await screen.findByLabelText("Address, line by line"), "3 Slip Lane");
    await user.click(screen.getByRole("button", { name: "Enter the payee" }));
    await waitFor(() =>
      expect((screen.getByLabelText("Payee of row 1") as HTMLInputElement).value).toBe("V88"),
    );
    expect(sent.find((one) => one.path === "/api/direct/payees")!.body).toMatchObject({
      name: "Wreck Diver",
      address: ["3 Slip Lane"],
      way: 9,
      bankAccount: 1,
    });
  });
});

describe("schedules", () => {
  afterEach(cleanup);

  it("pass over the day that waits, for a reason", async () => {
    const row: Schemas["ScheduleView"] = {
      id: 5,
      name: "Ticket hall lease",
      account: 1,
      way: 9,
      paidBy: "Checks, Operations",
      vendor: 7,
      vendorName: "Harbour Authority",
      vendorNumber: "V7",
      reference: "HALL {month}",
      said: "5400",
      amount: { text: "1,850.00", currency: "USD" },
      rhythm: "MONTHLY",
      rhythmWords: "every month",
      first: "2026-10-15",
      nextDay: "2026-11-15",
      endedWhy: "",
      days: [{ dueOn: "2026-10-15", words: "passed over: by agreement" }],
      keptBy: "Tomas Brandt",
      version: 3,
    };
    const { sent } = serve(<SchedulesPage />, {
      path: "/schedules",
      answers: {
        "GET /api/schedules": { schedules: [row], rhythms: [{ value: "MONTHLY", words: "every month" }] },
        "POST /api/schedules/{id}/pass": null,
      },
    });
    const user = userEvent.setup();
    await user.click(await screen.findByRole("button", { name: /Pass over/ }));
    await user.type(await screen.findByLabelText("Why"), "paid twice in October");
    await user.click(screen.getByRole("button", { name: "Pass over this day" }));
    await waitFor(() =>
      expect(sent).toContainEqual({
        path: "/api/schedules/5/pass",
        body: { dueOn: "2026-11-15", reason: "paid twice in October" },
      }),
    );
    screen.getByText(/passed over: by agreement/);
  });
});
