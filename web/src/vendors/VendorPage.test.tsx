import { cleanup, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { serve, type Answers } from "../tests/served";
import { VendorPage } from "./VendorPage";

const address = (more: Partial<Schemas["AddressView"]> = {}): Schemas["AddressView"] => ({
  id: 70,
  payee: "Turnstone Security",
  lines: ["17 Slipway Road", "Skerrow 41025"],
  postalCode: "41025",
  bank: "routing 990044105, account ••••4417",
  inForce: true,
  ...more,
});

function open(
  roles: string[],
  more: Partial<Schemas["VendorView"]> = {},
  account: Schemas["AccountRow"][] = [],
  answers: Answers = {},
) {
  return serve(<VendorPage />, {
    path: "/vendors/:id",
    at: "/vendors/7",
    roles,
    answers: {
      "GET /api/vendors/{id}": {
        id: 7,
        number: "V1024",
        name: "Turnstone Security",
        group: "Crew services",
        priority: 3,
        method: "check",
        currency: "USD",
        terms: "net 30",
        held: "",
        oneTime: false,
        addresses: [address()],
        open: [],
        credits: [],
        paidAhead: [],
        reserved: [],
        paid: [],
        offsets: [],
        ...more,
      },
      "GET /api/vendors/{id}/account": account,
      "GET /api/vendors/{id}/changes": [],
      ...answers,
      "POST /api/vendors/{id}/hold": {},
      "POST /api/vendors/{id}/release": {},
      "POST /api/vendors/{id}/changes": { id: 1 },
    },
  });
}

const KEPT: Schemas["VendorKept"] = {
  name: "Turnstone Security",
  group: "Crew services",
  priority: 3,
  method: "CHECK",
  alsoBy: [],
  alsoByWords: "",
  terms: "net 30",
  paperwork: {
    advice: "BOTH",
    email: "desk@turnstone.example",
    checks: "COURIER",
    dates: "ISO",
    words: ["Advice as a PDF by mail, to desk@turnstone.example", "Checks by courier"],
  },
  reportable: "SERVICES",
  reportableWords: "services",
  taxNumber: "",
  version: 4,
  mayChange: true,
};

describe("a vendor's page", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("keeps what is chosen of a vendor when the choices come late", async () => {
    let come: (choices: Schemas["VendorChoices"]) => void = () => undefined;
    const late = new Promise<Schemas["VendorChoices"]>((resolve) => (come = resolve));
    const both = (value: string, other: string) => [
      { value: other, words: other },
      { value, words: value },
    ];
    const { user, sent } = open(["CLERK"], {}, [], {
      "GET /api/vendors/{id}/kept": KEPT,
      "GET /api/vendors/choices": late,
      "POST /api/vendors/{id}": {},
    });
    expect(await screen.findByText(/Advice as a PDF by mail.*Checks by courier/)).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Change these…" }));
    await screen.findByLabelText("Terms");
    come({
      nextNumber: "V1",
      groups: [],
      methods: both("CHECK", "CREDIT_TRANSFER"),
      reportable: both("SERVICES", "NO"),
      advices: both("BOTH", "PAPER"),
      deliveries: both("COURIER", "MAIL"),
      dates: both("ISO", "WORDS"),
    });
    await screen.findByRole("option", { name: "BOTH" });
    expect((screen.getByLabelText("Remittance advice") as HTMLSelectElement).value).toBe("BOTH");
    await user.click(screen.getByRole("button", { name: "Change the vendor" }));
    expect(sent.at(-1)).toMatchObject({
      body: {
        facts: {
          method: "CHECK",
          reportable: "SERVICES",
          paperwork: { advice: "BOTH", checks: "COURIER", dates: "ISO", email: "desk@turnstone.example" },
        },
      },
    });
  });

  it("shows bank details masked, and lets a clerk propose a change of an address or a further one", async () => {
    const { user } = open(["CLERK"]);
    expect(await screen.findByText("routing 990044105, account ••••4417")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Propose a change…" }));
    expect(within(screen.getByRole("dialog")).getByDisplayValue("41025")).toBeTruthy();
    await user.keyboard("{Escape}");
    await user.click(screen.getByRole("button", { name: "Propose a further address…" }));
    expect(screen.getByRole("dialog", { name: "A further address of Turnstone Security" })).toBeTruthy();
  });

  it("lets an auditor read, and propose nothing", async () => {
    open(["AUDITOR"]);
    await screen.findByText("routing 990044105, account ••••4417");
    expect(screen.queryByRole("button", { name: /Propose/ })).toBeNull();
    expect(screen.queryByRole("button", { name: /Hold the vendor/ })).toBeNull();
  });

  it("says that an address waits for a second person, and that a payee is one-time", async () => {
    open(["CLERK"], { addresses: [address({ inForce: false, bank: "" })], oneTime: true });
    expect(await screen.findByText(/waits for a second person; nothing is paid to it/)).toBeTruthy();
    expect(screen.getByText(/one-time: every payment to it is marked/)).toBeTruthy();
  });

  it("is held by a clerk with a reason, and released by a controller only", async () => {
    const { user, sent } = open(["CLERK"]);
    await user.click(await screen.findByRole("button", { name: "Hold the vendor…" }));
    await user.type(screen.getByLabelText("Why it is held"), "a dispute");
    await user.click(screen.getByRole("button", { name: "Hold it" }));
    expect(sent).toEqual([{ path: "/api/vendors/7/hold", body: { reason: "a dispute" } }]);
    cleanup();
    open(["CLERK"], { held: "a dispute" });
    expect(await screen.findByText("Only a controller releases a vendor’s hold.")).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Release the vendor…" })).toBeNull();
    cleanup();
    open(["CONTROLLER"], { held: "a dispute" });
    expect(await screen.findByRole("button", { name: "Release the vendor…" })).toBeTruthy();
  });

  it("offers the trail of the invoice under the cursor and of the vendor", async () => {
    const row: Schemas["AccountRow"] = {
      key: "i11",
      date: "2026-10-31",
      entry: 11,
      kind: "INVOICE",
      words: "Invoice",
      reference: "TS-1",
      amount: "10.00",
      currency: "USD",
      open: "10.00",
      state: "open",
      settled: false,
      held: false,
      selectable: true,
    };
    open(["CLERK"], {}, [row]);
    expect(await screen.findByText("Trail of Turnstone Security")).toBeTruthy();
    (await screen.findByRole("grid")).focus();
    expect(await screen.findByText("Trail of TS-1")).toBeTruthy();
  });

  it("is merged by a controller into one that is chosen, and then leads to it", async () => {
    const { user, sent } = open(["CONTROLLER"], {}, [], {
      "GET /api/vendors": [{ id: 9, number: "V1009", name: "Turnstone Guards", group: "Crew services" }],
      "POST /api/vendors/{id}/merge": {},
    });
    await user.click(await screen.findByRole("button", { name: "It is the same as…" }));
    await user.type(screen.getByLabelText(/The vendor that stays/), "V1009");
    await user.type(screen.getByLabelText(/How you know/), "one letterhead");
    await user.click(await screen.findByRole("button", { name: "Merge into Turnstone Guards" }));
    expect(sent.at(-1)).toMatchObject({
      path: "/api/vendors/7/merge",
      body: { kept: 9, why: "one letterhead" },
    });
  });
});
