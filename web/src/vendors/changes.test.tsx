import { cleanup, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { Problem, serve } from "../tests/served";
import { ChangeFacts } from "./ChangeFacts";
import { ProposeChange } from "./ProposeChange";
import { VendorChangesPart } from "./VendorChangesPart";

const change: Schemas["ChangeView"] = {
  id: 9,
  vendor: 7,
  vendorName: "Turnstone Security",
  remitTo: 70,
  what: "bank details",
  before: ["Turnstone Security", "1 Quay"],
  beforeBank: "routing 990073053, account ••••1025",
  after: ["Turnstone Security", "1 Quay"],
  afterBank: "routing 990044105, account ••••4417",
  why: "a letter",
  proposedBy: "Ines Okafor",
  proposedAt: "2026-11-05T08:00:00Z",
  state: "PROPOSED",
  decidedWhy: "",
  mine: false,
  typesAccount: true,
};
const vendor = { id: 7, name: "Turnstone Security" } as Schemas["VendorView"];
const address = {
  id: 70,
  payee: "Turnstone Security",
  lines: ["1 Quay", "Skerrow"],
  postalCode: "41000",
  bank: "routing 990073053, account ••••1025",
  inForce: true,
} as Schemas["AddressView"];

describe("a vendor change", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("has its address put together in the order of the country", async () => {
    const { user, sent } = serve(<ProposeChange vendor={vendor} address={address} onClose={vi.fn()} />, {
      answers: {
        "GET /api/addresses/countries": [{ code: "US", name: "United States" }],
        "GET /api/addresses/lines": { lines: ["4 Ropewalk Quay", "Skerrow ME 04101"] },
        "POST /api/vendors/{id}/changes": { id: 1 },
      },
    });
    await user.click(screen.getByText("Put it together in the order of its country"));
    await user.type(await screen.findByLabelText("Street or box"), "4 Ropewalk Quay");
    await user.type(screen.getByLabelText("Its postal code"), "04101");
    const take = await screen.findByRole<HTMLButtonElement>("button", { name: "Take these lines" });
    await waitFor(() => expect(take.disabled).toBe(false));
    await user.click(take);
    // Enter among the parts proposes nothing yet
    await user.type(screen.getByLabelText("Town"), "{Enter}");
    expect(sent).toEqual([]);
    await user.type(screen.getByLabelText(/Where this comes from/), "their letter");
    await user.click(screen.getByRole("button", { name: "Propose the change" }));
    expect(sent.at(-1)).toMatchObject({
      body: { lines: ["4 Ropewalk Quay", "Skerrow ME 04101"], postalCode: "04101" },
    });
  });

  it("is confirmed by another controller, who is told what that means", async () => {
    const { user, sent } = serve(<ChangeFacts change={change} />, {
      roles: ["CONTROLLER"],
      answers: { "POST /api/vendor-changes/{id}/confirm": { batches: ["Week 46"] } },
    });
    // what differs stands out
    expect(screen.getByText(/••••4417/).className).toContain("font-bold");
    expect(screen.getAllByText("1 Quay")[1]!.className).not.toContain("font-bold");
    await user.click(screen.getByRole("button", { name: "Confirm…" }));
    expect(screen.getByText(/neither you nor Ines Okafor can approve/)).toBeTruthy();
    await user.type(screen.getByLabelText("Routing number, empty for an IBAN"), "990044105");
    await user.type(screen.getByLabelText("Account number or IBAN"), "20934417");
    await user.selectOptions(screen.getByLabelText("Kind of account"), "savings");
    await user.click(screen.getByRole("button", { name: "Confirm the change" }));
    expect(sent).toEqual([
      {
        path: "/api/vendor-changes/9/confirm",
        body: { routing: "990044105", account: "20934417", savings: true, bic: "" },
      },
    ]);
  });

  it("is refused with a reason", async () => {
    const { user, sent } = serve(<ChangeFacts change={change} />, {
      roles: ["CONTROLLER"],
      answers: { "POST /api/vendor-changes/{id}/refuse": undefined },
    });
    await user.click(screen.getByRole("button", { name: "Refuse it…" }));
    await user.type(screen.getByLabelText("Why not"), "nobody answers there");
    await user.click(screen.getByRole("button", { name: "Refuse the change" }));
    expect(sent).toEqual([
      { path: "/api/vendor-changes/9/refuse", body: { reason: "nobody answers there" } },
    ]);
  });

  it("is only taken back by whoever proposed it", async () => {
    const { user, sent } = serve(<ChangeFacts change={{ ...change, mine: true }} />, {
      roles: ["CONTROLLER"],
      answers: { "POST /api/vendor-changes/{id}/take-back": undefined },
    });
    expect(screen.queryByRole("button", { name: "Confirm…" })).toBeNull();
    await user.click(screen.getByRole("button", { name: "Take it back" }));
    expect(sent).toEqual([{ path: "/api/vendor-changes/9/take-back", body: undefined }]);
  });

  it("only waits, for a clerk, and tells of its end afterwards", () => {
    serve(<ChangeFacts change={change} />, { answers: {} });
    expect(screen.getByText("It waits for a controller other than Ines Okafor.")).toBeTruthy();
    cleanup();
    serve(
      <ChangeFacts
        here
        change={{
          ...change,
          state: "REFUSED",
          decidedBy: "Ruth Castellane",
          decidedOn: "2026-11-06",
          decidedWhy: "nobody answers there",
        }}
      />,
      { roles: ["CONTROLLER"], answers: {} },
    );
    expect(screen.getByText(/refused by Ruth Castellane, Fri 6 Nov\. “nobody answers there”/)).toBeTruthy();
    expect(screen.queryByRole("button")).toBeNull();
    expect(screen.queryByRole("link")).toBeNull();
  });
});

describe("a vendor's changes", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("show what waits apart from what was decided", async () => {
    serve(<VendorChangesPart vendor={vendor} />, {
      answers: {
        "GET /api/vendors/{id}/changes": [
          change,
          { ...change, id: 8, what: "new address", state: "CONFIRMED", decidedBy: "Ruth Castellane" },
        ],
      },
    });
    const waiting = await screen.findByRole("region", { name: "Waits for a second person" });
    expect(within(waiting).getByText("bank details")).toBeTruthy();
    const decided = screen.getByRole("region", { name: "Changes by two people" });
    expect(within(decided).getByText("new address")).toBeTruthy();
    expect(within(decided).queryByText("bank details")).toBeNull();
  });

  it("begin as a proposal that keeps the bank details unless told otherwise", async () => {
    const { user, sent } = serve(
      <ProposeChange vendor={vendor} address={address} onClose={() => undefined} />,
      {
        answers: { "POST /api/vendors/{id}/changes": { id: 10 } },
      },
    );
    const lines = screen.getByLabelText("Address, one to five lines");
    await user.clear(lines);
    await user.type(lines, "2 Millrace Yard{enter}Skerrow");
    await user.type(screen.getByLabelText(/Where this comes from/), "their letter");
    await user.click(screen.getByRole("button", { name: "Propose the change" }));
    expect(sent).toEqual([
      {
        path: "/api/vendors/7/changes",
        body: {
          remitTo: 70,
          payee: "Turnstone Security",
          lines: ["2 Millrace Yard", "Skerrow"],
          postalCode: "41000",
          bank: "KEEP",
          routing: "",
          bankAccount: "",
          savings: false,
          bic: "",
          why: "their letter",
        },
      },
    ]);
  });

  it("keep what was typed when the account number is refused", async () => {
    const { user, sent } = serve(
      <ProposeChange vendor={vendor} address={address} onClose={() => undefined} />,
      {
        answers: {
          "POST /api/vendors/{id}/changes": new Problem(422, "routing", "This is no routing number."),
        },
      },
    );
    await user.selectOptions(screen.getByLabelText("Bank details"), "NEW");
    await user.type(screen.getByLabelText(/Routing number/), "990044104");
    await user.type(screen.getByLabelText("Account number or IBAN"), "330019");
    await user.click(screen.getByRole("button", { name: "Propose the change" }));
    expect((await screen.findByRole("alert")).textContent).toContain("This is no routing number");
    expect((screen.getByLabelText(/Routing number/) as HTMLInputElement).value).toBe("990044104");
    expect(sent[0]?.body).toMatchObject({ bank: "NEW", routing: "990044104", bankAccount: "330019" });
    // what is secret stays no longer than the form
    expect(screen.getByLabelText<HTMLInputElement>("Account number or IBAN").value).toBe("330019");
    expect(JSON.stringify(sessionStorage)).toContain("990044104");
    expect(JSON.stringify(sessionStorage)).not.toContain("330019");
  });

  it("offer a further address with nothing to keep", () => {
    serve(<ProposeChange vendor={vendor} address={undefined} onClose={() => undefined} />, {
      answers: {},
    });
    const bank = screen.getByLabelText<HTMLSelectElement>("Bank details");
    expect([...bank.options].map((one) => one.text)).toEqual(["none", "new ones"]);
    expect(bank.value).toBe("NONE");
    expect((screen.getByLabelText("Payee") as HTMLInputElement).value).toBe("Turnstone Security");
  });
});
