import { cleanup, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { Problem, serve, type Answers } from "../tests/served";
import { BatchPage } from "./BatchPage";

const line = (invoice: number, reference: string, cash: string): Schemas["LineView"] => ({
  invoice,
  kind: "INVOICE",
  reference,
  invoiceDate: "2026-10-14",
  dueDate: "2026-11-13",
  open: cash,
  gross: cash,
  discount: "",
  credit: "",
  cash,
  part: false,
  byHand: false,
  hidden: false,
  ownCheck: false,
  held: "",
  accounts: "",
});
const batch = (more: Partial<Schemas["BatchView"]> = {}): Schemas["BatchView"] => ({
  id: 7,
  version: 4,
  name: "Week 46",
  note: "",
  account: 1,
  accountName: "Operations",
  currency: "USD",
  by: "check",
  purpose: "RUN",
  leaves: "ON_PAPER",
  checkDate: "2026-11-13",
  ledgerDate: "2026-11-13",
  state: "DRAFT",
  stateWords: "draft",
  preparedBy: "Ines Okafor",
  hands: ["Ines Okafor"],
  amount: "1,392.60",
  saved: "0.00",
  credited: "0.00",
  claims: [
    {
      id: 1,
      vendor: 10,
      payee: "Gannet Rope Walk",
      address: "1 Quay",
      remitTo: 100,
      amount: "1,392.60",
      apart: false,
      number: "",
      stubNote: "",
      held: "",
      lines: [line(11, "GRW 2217", "1,392.60")],
    },
  ],
  approvals: [],
  edits: [],
  order: "payee name",
  gathered: false,
  kept: false,
  ...more,
});
const mark = {
  key: "DUPLICATE 11 12",
  kind: "DUPLICATE",
  words: "possible duplicate",
  reason: "GRW 2217 may be a duplicate of GRW 2271.",
  facts: [],
};
const looks = (more: object = {}) => ({
  marks: [{ claim: 1, marks: [mark] }],
  notes: [],
  struck: [],
  ...more,
});
const route = {
  route: "Over a limit",
  why: "a payment is marked: possible duplicate",
  sent: false,
  steps: [],
  considered: [],
  shortOf: "",
};

function open(view: Schemas["BatchView"], answers: Answers = {}, roles = ["CLERK"], at = "/batches/7") {
  return serve(<BatchPage />, {
    path: "/batches/:id",
    at,
    roles,
    answers: {
      "GET /api/batches/{id}": view,
      "GET /api/batches/{id}/looks": looks(),
      "GET /api/batches/{id}/route": route,
      "GET /api/batches/{id}/level": { level: true, tallies: [], vials: [], voidedCount: 0, voided: "0.00" },
      "GET /api/slips/claims/{batch}/{claim}": { title: "As it will be paid", address: [] },
      "GET /api/trail/of": [],
      ...answers,
    },
  });
}

const list = () => screen.findByRole("grid", { name: "Lines of the batch" });

describe("a batch", () => {
  afterEach(() => {
    cleanup();
    sessionStorage.clear();
    vi.restoreAllMocks();
  });

  it("shows its marks in the draft, before anybody is asked", async () => {
    open(batch());
    expect(await screen.findByText("payment to look at")).toBeTruthy();
    expect(within(await list()).getAllByRole("row")[1]!.textContent).toContain("possible duplicate");
    (await list()).focus();
    expect(await screen.findByText("GRW 2217 may be a duplicate of GRW 2271.")).toBeTruthy();
  });

  it("takes the clerk's answer to a mark", async () => {
    const { user, sent } = open(batch(), {
      "POST /api/batches/{id}/marks": looks({
        marks: [{ claim: 1, marks: [{ ...mark, answer: "two deliveries", answeredBy: "Ines Okafor" }] }],
      }),
    });
    (await list()).focus();
    await user.click(await screen.findByRole("button", { name: "Say what you found out…" }));
    await user.type(screen.getByLabelText("What the approvers should know"), "two deliveries");
    await user.click(screen.getByRole("button", { name: "Send it along" }));
    expect(sent).toEqual([
      { path: "/api/batches/7/marks", body: { key: "DUPLICATE 11 12", note: "two deliveries" } },
    ]);
    expect(await screen.findByText(/“two deliveries”/)).toBeTruthy();
  });

  it("lets nobody but a clerk answer, and nobody once it is approved", async () => {
    open(batch({ state: "IN_APPROVAL", stateWords: "in approval" }), {}, ["AUDITOR"]);
    (await list()).focus();
    await screen.findByText("GRW 2217 may be a duplicate of GRW 2271.");
    expect(screen.queryByRole("button", { name: "Say what you found out…" })).toBeNull();
    cleanup();
    open(batch({ state: "APPROVED", stateWords: "approved" }));
    (await list()).focus();
    await screen.findByText("GRW 2217 may be a duplicate of GRW 2271.");
    expect(screen.queryByRole("button", { name: "Say what you found out…" })).toBeNull();
  });

  it("says which route it will take before it is sent", async () => {
    const { user, sent } = open(batch(), { "POST /api/batches/{id}/send": undefined });
    await user.click(await screen.findByRole("button", { name: "Send for approval…" }));
    const dialog = screen.getByRole("dialog");
    expect(await within(dialog).findByText("Over a limit")).toBeTruthy();
    await user.click(within(dialog).getByRole("button", { name: "Send for approval" }));
    expect(sent).toEqual([{ path: "/api/batches/7/send", body: { version: 4 } }]);
  });

  it("keeps the question open when nobody is left to approve", async () => {
    const { user } = open(batch(), {
      "POST /api/batches/{id}/send": new Problem(
        409,
        "nobody-left",
        "The route “Strict” cannot be completed.",
      ),
    });
    await user.click(await screen.findByRole("button", { name: "Send for approval…" }));
    await user.click(screen.getByRole("button", { name: "Send for approval" }));
    expect((await screen.findByRole("alert")).textContent).toContain("cannot be completed");
  });

  it("shows what the approver noted, where it belongs", async () => {
    open(batch({ sentBackReason: "see the note at single payments" }), {
      "GET /api/batches/{id}/looks": looks({
        notes: [{ claim: 1, payee: "Gannet Rope Walk", note: "ask them", who: "Maren Lindqvist", round: 1 }],
      }),
    });
    expect(await screen.findByText("see the note at single payments")).toBeTruthy();
    await screen.findByText("payment to look at");
    expect(within(await list()).getAllByRole("row")[1]!.textContent).toContain("noted by the approver");
    (await list()).focus();
    expect(await screen.findByText(/“ask them”/)).toBeTruthy();
  });

  it("tells of every answer it got, the void ones, too, and of what was struck", async () => {
    open(
      batch({
        approvals: [
          {
            who: "Ruth Castellane",
            onBehalfOf: "Aldo Ferreira",
            outcome: "APPROVED",
            reason: "",
            at: "2026-11-12T09:00:00Z",
            counts: true,
          },
          {
            who: "Maren Lindqvist",
            outcome: "APPROVED",
            reason: "",
            at: "2026-11-12T08:00:00Z",
            counts: false,
          },
          {
            who: "Maren Lindqvist",
            outcome: "SENT_BACK",
            reason: "look again",
            at: "2026-11-12T07:00:00Z",
            counts: false,
          },
        ],
      }),
      {
        "GET /api/batches/{id}/looks": looks({
          struck: [
            {
              payee: "Kittiwake",
              amount: "50.00",
              reason: "wrong sizes",
              who: "Aldo Ferreira",
              at: "2026-11-12T08:00:00Z",
              round: 1,
            },
          ],
        }),
      },
      ["CLERK"],
      "/batches/7?panel=approval",
    );
    const answers = (await screen.findAllByRole("listitem")).map((item) => item.textContent);
    expect(answers[0]).toContain("Ruth Castellane for Aldo Ferreira approved");
    expect(answers[1]).toContain("(void: changed afterwards)");
    expect(answers[2]).toContain("sent it back");
    expect(answers[2]).toContain("look again");
    expect(await screen.findByText("Kittiwake 50.00")).toBeTruthy();
    expect(screen.getByText(/wrong sizes/)).toBeTruthy();
  });

  const three = () =>
    batch({
      claims: [
        {
          ...batch().claims[0]!,
          lines: [line(11, "GRW 2217", "1.00"), line(12, "GRW 2218", "2.00"), line(13, "GRW 2219", "3.00")],
        },
      ],
    });
  const without = (view: Schemas["BatchView"], out: number[], version: number) => ({
    ...view,
    version,
    claims: view.claims.map((claim) => ({
      ...claim,
      lines: claim.lines.filter((one) => !out.includes(one.invoice)),
    })),
  });

  it("takes out two lines when Space is pressed twice, each edit on the newest version", async () => {
    const gone: number[] = [];
    const { user, sent } = open(three(), {
      "POST /api/batches/{id}/take-out": (body: { version: number; invoices: number[] }) => {
        gone.push(...body.invoices);
        return without(three(), gone, body.version + 1);
      },
    });
    (await list()).focus();
    await user.keyboard("  ");
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent.map((one) => one.body)).toEqual([
      { version: 4, invoices: [11] },
      { version: 5, invoices: [12] },
    ]);
    await waitFor(async () => expect(within(await list()).queryByText("GRW 2218")).toBeNull());
  });

  it("keeps a stub note that is typed over a refusal and a step of the cursor", async () => {
    const two = batch({
      claims: [
        batch().claims[0]!,
        { ...batch().claims[0]!, id: 2, payee: "Tern Ropes", lines: [line(21, "TR 1", "9.00")] },
      ],
    });
    const { user } = open(
      two,
      {
        "GET /api/batches/{id}/claims/{claim}/choices": { addresses: [], credits: [] },
        "POST /api/batches/{id}/claims/{claim}/note": new Problem(409, "changed", "Tomas was first."),
      },
      ["CLERK"],
      "/batches/7?at=11",
    );
    (await list()).focus();
    await user.keyboard("n");
    const note = () => screen.findByLabelText<HTMLInputElement>("Stub note, at most 120 characters");
    await user.type(await note(), "ask for Hal{Enter}");
    expect((await note()).value).toBe("ask for Hal");
    (await list()).focus();
    await user.keyboard("{ArrowDown}");
    await waitFor(async () => expect((await note()).value).toBe(""));
    // the key asked for the note once; a step does not pull the cursor out of the list
    expect(document.activeElement).toBe(await list());
    await user.keyboard("{ArrowUp}");
    await waitFor(async () => expect((await note()).value).toBe("ask for Hal"));
  });

  it("leads an approver to the page where it is answered", async () => {
    open(batch({ state: "IN_APPROVAL", stateWords: "in approval" }), {}, ["APPROVER"]);
    const link = await screen.findByRole("link", { name: "Look and answer" });
    expect(link.getAttribute("href")).toBe("/approval/7");
    cleanup();
    open(batch({ state: "IN_APPROVAL", stateWords: "in approval" }));
    await list();
    expect(screen.queryByRole("link", { name: "Look and answer" })).toBeNull();
  });

  it("takes an amount in its cell: Enter keeps it and goes down, Esc gives back, what is refused stays", async () => {
    const two = batch();
    two.claims[0]!.lines.push(line(12, "GRW 2271", "200.00"));
    let refuse = false;
    const { user, sent } = open(two, {
      "POST /api/batches/{id}/lines/{invoice}/pay": () =>
        refuse ? new Problem(422, "too-much", "9,999.00 is more than 200.00.") : { ...two, version: 5 },
    });
    (await list()).focus();
    await user.keyboard("5");
    const first = await screen.findByLabelText(/Pays on GRW 2217/);
    expect((first as HTMLInputElement).value).toBe("5");
    await user.keyboard("00{Enter}");
    expect(sent.at(-1)).toMatchObject({ path: "/api/batches/7/lines/11/pay", body: { cash: "500" } });
    await waitFor(() => expect(screen.queryByLabelText(/Pays on/)).toBeNull());
    // the cursor is a row further, and the list has the keys again
    refuse = true;
    await user.keyboard("9");
    const second = (await screen.findByLabelText(/Pays on GRW 2271/)) as HTMLInputElement;
    await user.keyboard("999{Enter}");
    expect((await screen.findByRole("alert")).textContent).toContain("is more than 200.00");
    expect(second.value).toBe("9999");
    await user.keyboard("{Escape}");
    await waitFor(() => expect(screen.queryByLabelText(/Pays on/)).toBeNull());
    expect(sent.length).toBe(2);
  });

  it("goes from one amount into the next with Tab, and asks in a dialog once the batch was sent", async () => {
    const two = batch();
    two.claims[0]!.lines.push(line(12, "GRW 2271", "200.00"));
    const { user } = open(two);
    (await list()).focus();
    await user.keyboard("{Enter}");
    await screen.findByLabelText(/Pays on GRW 2217/);
    await user.keyboard("{Tab}");
    expect(await screen.findByLabelText(/Pays on GRW 2271/)).toBeTruthy();
    cleanup();
    const sent = open(batch({ state: "APPROVED" }));
    (await list()).focus();
    await sent.user.keyboard("5");
    expect(await screen.findByText(/must be approved anew/)).toBeTruthy();
  });
});
