import { cleanup, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { Problem, serve, type Answers } from "../tests/served";
import { PrintPage } from "./PrintPage";

const sheet = (n: number, more: Partial<Schemas["SheetView"]> = {}): Schemas["SheetView"] => ({
  document: n,
  claim: 100 + n,
  number: 41_200 + n,
  payee: `Payee ${n}`,
  amount: "10.00",
  pages: 1,
  outcome: "PRINTED",
  why: "",
  posted: false,
  ...more,
});
const printing = (more: Partial<Schemas["PrintingView"]> = {}): Schemas["PrintingView"] => ({
  account: 1,
  accountName: "Operations",
  nextNumber: 41_300,
  sameNumberReprint: false,
  loading: "",
  toNumber: 0,
  toNumberAmount: "0.00",
  unnumbered: [],
  advices: [],
  onOwnNumber: 0,
  unanswered: 2,
  printable: true,
  runs: [{ run: 5, sent: true, madeBy: "Ines Okafor", sheets: [sheet(1), sheet(2)] }],
  ...more,
});

function open(view: Schemas["PrintingView"], answers: Answers = {}, at = "/print/7") {
  return serve(<PrintPage />, {
    path: "/print/:id",
    at,
    answers: {
      "GET /api/batches/{id}": { id: 7, name: "Week 46", state: "NUMBERED", stateWords: "numbered" },
      "GET /api/batches/{id}/printing": view,
      "GET /api/batches/{id}/level": { level: true, tallies: [], vials: [], voidedCount: 0, voided: "0.00" },
      "GET /api/documents/{document}/page": { width: 612, height: 792, texts: [], rules: [], frames: [] },
      ...answers,
    },
  });
}

const list = () => screen.findByRole("grid", { name: "Sheets" });

describe("printing", () => {
  afterEach(() => {
    cleanup();
    sessionStorage.clear();
    vi.restoreAllMocks();
  });

  it("takes an answer for each sheet by one key, in the order of the keys", async () => {
    const said: number[] = [];
    const { user, sent } = open(printing(), {
      "POST /api/batches/{id}/answers": (body: { answers: { document: number }[] }) => {
        said.push(...body.answers.map((one) => one.document));
        return printing({
          runs: [
            {
              ...printing().runs[0]!,
              sheets: [1, 2].map((n) => sheet(n, { answer: said.includes(n) ? "GOOD" : undefined })),
            },
          ],
        });
      },
    });
    (await list()).focus();
    await user.keyboard(" {ArrowDown} ");
    await vi.waitFor(() => expect(said).toEqual([1, 2]));
    expect(sent[0]!.body).toEqual({ answers: [{ document: 1, answer: "GOOD", why: "" }] });
    expect(await within(await list()).findAllByText("good")).toHaveLength(2);
  });

  it("takes a payment out, with what becomes of the paper of its number", async () => {
    const { user, sent } = open(
      printing(),
      { "POST /api/batches/{id}/take-out-payments": printing({ runs: [] }) },
      "/print/7?at=1",
    );
    await user.click(await screen.findByRole("button", { name: "Take out…" }));
    const dialog = within(screen.getByRole("dialog", { name: "Take out the payment to Payee 1" }));
    await user.click(dialog.getByLabelText(/stayed blank or is lost/));
    await user.type(dialog.getByLabelText(/^Why/), "asked by the vendor");
    await user.click(dialog.getByRole("button", { name: "Take it out" }));
    expect(sent).toEqual([
      {
        path: "/api/batches/7/take-out-payments",
        body: { claims: [101], spoiled: false, why: "asked by the vendor" },
      },
    ]);
  });

  it("gives up the numbers of blank sheets, and keeps what was typed when that is refused", async () => {
    const { user, sent } = open(
      printing({
        onOwnNumber: 1,
        runs: [{ ...printing().runs[0]!, sheets: [sheet(1, { outcome: "BLANK", answer: "BLANK" })] }],
      }),
      {
        "POST /api/batches/{id}/release-blanks": new Problem(409, "turn", "Tomas Brandt has the turn."),
      },
      "/print/7?at=1",
    );
    await user.click(await screen.findByRole("button", { name: "Give up its number…" }));
    const dialog = within(screen.getByRole("dialog"));
    await user.type(dialog.getByLabelText(/^Where the paper is/), "in the bin");
    await user.click(dialog.getByRole("button", { name: "Give up the number" }));
    expect((await dialog.findByRole("alert")).textContent).toContain("Tomas Brandt has the turn.");
    expect(dialog.getByLabelText<HTMLTextAreaElement>(/^Where the paper is/).value).toBe("in the bin");
    expect(sent[0]!.body).toEqual({ documents: [1], why: "in the bin" });
  });

  it("prints a damaged sheet again on its own number only where the series allows that", async () => {
    open(printing(), {}, "/print/7?at=1");
    expect(await screen.findByRole("button", { name: "Spoiled…" })).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Print again…" })).toBeNull();
    cleanup();
    const { user, sent } = open(
      printing({ sameNumberReprint: true }),
      { "POST /api/batches/{id}/answers": printing({ sameNumberReprint: true, onOwnNumber: 1 }) },
      "/print/7?at=1",
    );
    await user.click(await screen.findByRole("button", { name: "Print again…" }));
    const dialog = within(screen.getByRole("dialog"));
    await user.type(dialog.getByLabelText(/^What happened/), "smeared");
    await user.click(dialog.getByRole("button", { name: "Print on its own number again" }));
    expect(sent[0]!.body).toEqual({ answers: [{ document: 1, answer: "AGAIN", why: "smeared" }] });
    expect(await screen.findByRole("button", { name: "Print 1 sheet on its own number" })).toBeTruthy();
  });

  it("takes answers by the numbers on the sheets, and keeps what was typed when one of them is refused", async () => {
    let refused = true;
    const { user, sent } = open(printing(), {
      "POST /api/batches/{id}/answers-by-number": () =>
        refused
          ? new Problem(422, "named-twice", "Number 41201 is named twice.", {
              spoiled: "Number 41201 is named twice.",
            })
          : printing({ unanswered: 0 }),
    });
    await user.click(await screen.findByRole("button", { name: "By number…" }));
    const dialog = within(screen.getByRole("dialog", { name: "Answer by number, 2 sheets wait" }));
    expect(dialog.queryByLabelText(/^What happened/)).toBeNull();
    await user.type(dialog.getByLabelText("Good"), "41201");
    await user.type(dialog.getByLabelText(/^Spoiled/), "41201-41202");
    await user.type(dialog.getByLabelText(/^What happened/), "torn");
    await user.click(dialog.getByRole("button", { name: "Answer for these" }));
    expect((await dialog.findByRole("alert")).textContent).toContain("named twice");
    expect((dialog.getByLabelText("Good") as HTMLInputElement).value).toBe("41201");
    expect(sent[0]).toEqual({
      path: "/api/batches/7/answers-by-number",
      body: { good: "41201", spoiled: "41201-41202", blank: "", why: "torn" },
    });
    refused = false;
    await user.click(dialog.getByRole("button", { name: "Answer for these" }));
    await vi.waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  });

  it("prints advice on plain paper by itself, once however often it is pressed", async () => {
    const { user, sent } = open(printing({ advices: [{ run: 9, sent: false, payments: 1, pages: 2 }] }), {
      "POST /api/batches/{id}/runs/{run}/send": () => new Promise(() => undefined),
    });
    const button = await screen.findByRole("button", { name: "Print 2 pages of advice on plain paper" });
    await user.dblClick(button);
    await user.click(button);
    expect(sent).toEqual([{ path: "/api/batches/7/runs/9/send", body: undefined }]);
  });

  it("names whom it keeps back and why, while the others go on", async () => {
    open(
      printing({
        toNumber: 1,
        unnumbered: [
          { claim: 1, payee: "Kittiwake", amount: "5.00", why: "Kittiwake: the vendor is held, dispute" },
          { claim: 2, payee: "Tern Ropes", amount: "6.00", why: "" },
        ],
      }),
      {},
      "/print/7?at=claim-1",
    );
    expect(await screen.findAllByText(/the vendor is held, dispute/)).not.toHaveLength(0);
    expect(screen.getByText("waits for its number")).toBeTruthy();
    expect(screen.getByText(/Mend what keeps it back and print again/)).toBeTruthy();
  });
});
