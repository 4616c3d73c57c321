import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { serve } from "../tests/served";
import { toggled } from "./BesideRow";
import { RecordPage } from "./RecordPage";
import { after, following, isTyped } from "./rows";

describe("rows", () => {
  it.each([
    ["H-101", "H-102"],
    ["0099", "0100"],
    ["999", "1000"],
    ["FT 2291-88", "FT 2291-89"],
    ["99999999999999999999", "100000000000000000000"],
  ])("%s is followed by %s", (number, next) => expect(following(number)).toBe(next));

  it("begins below another on its day, under the number that follows", () => {
    const row = { number: "H-9", paidOn: "2026-11-03", vendor: "V1", said: "5400", amount: "3" };
    expect(after(row, "2026-11-12")).toEqual({
      number: "H-10",
      paidOn: "2026-11-03",
      vendor: "",
      said: "",
      amount: "",
    });
    expect(isTyped(after(row, "2026-11-12"))).toBe(false);
    expect(after({ ...row, number: "FT", paidOn: "" }, "2026-11-12")).toMatchObject({
      number: "",
      paidOn: "2026-11-12",
    });
  });

  it("names an invoice, or takes it off", () => {
    expect(toggled("", "PR-1")).toBe("PR-1");
    expect(toggled("PR-1; PR-2", "PR-3")).toBe("PR-1, PR-2, PR-3");
    expect(toggled("PR-1, pr-2", "PR-2")).toBe("PR-1");
  });
});

const WAYS: Schemas["OutsideWay"][] = [
  {
    account: 1,
    accountName: "Operations",
    currency: "USD",
    way: 9,
    name: "Wires",
    method: "WIRE",
    methodWords: "wire",
    recordedOnly: true,
    numberSays: "as the bank or the issuer gave it",
  },
];

const looked = (row: Schemas["OutsideRow"]): Schemas["LookedRow"] => ({
  number: row.number,
  paidOn: row.paidOn,
  ledgerDate: row.paidOn,
  vendor: row.vendor ? 4 : undefined,
  payee: row.vendor ? "Ebb Tide Linen" : "",
  amount: row.amount,
  settles: [{ what: "5400 Cleaning", amount: row.amount, discount: "" }],
  says: "",
  problem: row.vendor ? undefined : "Say whom it was paid to.",
  fields: row.vendor ? {} : { vendor: "Say whom it was paid to." },
});

describe("recording", () => {
  beforeEach(() => sessionStorage.clear());
  afterEach(cleanup);

  const page = () =>
    serve(<RecordPage />, {
      path: "/outside/new",
      answers: {
        "GET /api/outside/ways": WAYS,
        "GET /api/vendors": [{ id: 4, number: "V4", name: "Ebb Tide Linen", group: "" }],
        "GET /api/vendors/{id}/account": [],
        "POST /api/outside/look": ({ rows }: Schemas["OutsideAsked"]) => ({
          rows: rows.map(looked),
          total: "12.00",
          problems: rows.filter((row) => !row.vendor).length,
        }),
        "POST /api/outside": [77],
      },
    });

  it("goes on row by row by keyboard, and sends what was typed", async () => {
    const { sent } = page();
    const user = userEvent.setup();
    await user.type(await screen.findByLabelText("Number of row 1"), "FT 1");
    await user.type(screen.getByLabelText("Vendor of row 1"), "Ebb Tide Linen");
    await user.type(screen.getByLabelText("What it was for of row 1"), "5400");
    await user.type(screen.getByLabelText("Amount of row 1"), "12.00{Enter}");
    await waitFor(() => expect(document.activeElement?.getAttribute("name")).toBe("number-1"));
    expect((screen.getByLabelText("Number of row 2") as HTMLInputElement).value).toBe("FT 2");
    const vendor = screen.getByLabelText("Vendor of row 2");
    fireEvent.keyDown(vendor, { key: "d", ctrlKey: true });
    await waitFor(() => expect((vendor as HTMLInputElement).value).toBe("Ebb Tide Linen"));
    await user.type(screen.getByLabelText("Amount of row 2"), "3.00");
    await screen.findByRole("button", { name: "Record 2 payments" });
    await user.click(screen.getByRole("button", { name: "Record and send for approval" }));
    const recorded = () => sent.find((one) => one.path === "/api/outside");
    await waitFor(() => expect(recorded()).toBeDefined());
    expect(recorded()!.body).toMatchObject({
      account: 1,
      way: 9,
      send: true,
      rows: [
        { number: "FT 1", said: "5400", amount: "12.00" },
        { number: "FT 2", vendor: "Ebb Tide Linen", amount: "3.00" },
      ],
    });
  });

  it("says at the row why it cannot be recorded, and loses nothing of it", async () => {
    page();
    const user = userEvent.setup();
    await user.type(await screen.findByLabelText("Amount of row 1"), "12.00");
    await screen.findByText("Say whom it was paid to.");
    expect(screen.getByLabelText("Vendor of row 1").getAttribute("aria-invalid")).toBe("true");
    cleanup();
    page();
    expect(((await screen.findByLabelText("Amount of row 1")) as HTMLInputElement).value).toBe("12.00");
  });
});
