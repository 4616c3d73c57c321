import { cleanup, screen, waitFor, within } from "@testing-library/react";
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
  goes: "by mail",
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
  paperHasNumbers: false,
  loading: "",
  foretold: "",
  printers: [
    { id: 1, name: "Stand-in tray", kind: "STAND_IN", way: "the stand-in tray", queue: "", inUse: true },
    { id: 2, name: "My own printer", kind: "OWN", way: "pages open in the browser", queue: "", inUse: true },
  ],
  usualPrinter: 1,
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
      "GET /api/documents/{document}/page": {
        width: 612,
        height: 792,
        texts: [],
        rules: [],
        frames: [],
        pictures: [],
      },
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
    await waitFor(() => expect(said).toEqual([1, 2]));
    expect(sent[0]!.body).toEqual({ answers: [{ document: 1, answer: "GOOD", why: "" }], callBack: false });
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
        body: { claims: [101], spoiled: false, why: "asked by the vendor", callBack: false },
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
    expect(sent[0]!.body).toEqual({
      answers: [{ document: 1, answer: "AGAIN", why: "smeared" }],
      callBack: false,
    });
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
      body: { good: "41201", spoiled: "41201-41202", blank: "", why: "torn", callBack: false },
    });
    refused = false;
    await user.click(dialog.getByRole("button", { name: "Answer for these" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  });

  it("prints advice on plain paper by itself, once however often it is pressed", async () => {
    const { user, sent } = open(printing({ advices: [{ run: 9, sent: false, payments: 1, pages: 2 }] }), {
      "POST /api/batches/{id}/runs/{run}/send": () => new Promise(() => undefined),
    });
    const button = await screen.findByRole("button", { name: "Print 2 pages of advice on plain paper" });
    await user.dblClick(button);
    await user.click(button);
    expect(sent).toEqual([{ path: "/api/batches/7/runs/9/send", body: { printer: 1 } }]);
  });

  it("names whom it keeps back and why, while the others go on", async () => {
    open(
      printing({
        toNumber: 1,
        unnumbered: [
          {
            claim: 1,
            payee: "Kittiwake",
            amount: "5.00",
            goes: "by mail",
            why: "Kittiwake: the vendor is held, dispute",
          },
          { claim: 2, payee: "Tern Ropes", amount: "6.00", goes: "by mail", why: "" },
        ],
      }),
      {},
      "/print/7?at=claim-1",
    );
    expect(await screen.findAllByText(/the vendor is held, dispute/)).not.toHaveLength(0);
    expect(screen.getByText("waits for its number")).toBeTruthy();
    expect(screen.getByText(/Mend what keeps it back and print again/)).toBeTruthy();
  });

  it("answers what a queue may still print only after somebody looked", async () => {
    const { user, sent } = open(
      printing(),
      {
        "POST /api/batches/{id}/answers": (body: { callBack: boolean }) =>
          body.callBack
            ? printing({ unanswered: 1 })
            : new Problem(409, "may-still-print", "Job tray-7 of Office laser may still print these sheets."),
      },
      "/print/7?at=1",
    );
    await user.click(await screen.findByRole("button", { name: "Still blank" }));
    const dialog = within(await screen.findByRole("dialog"));
    expect(dialog.getByText(/Job tray-7 of Office laser/)).toBeTruthy();
    await user.click(dialog.getByRole("button", { name: /^Nothing more comes out/ }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(sent.map((one) => (one.body as { callBack: boolean }).callBack)).toEqual([false, true]);
  });

  it("gets the pages for one's own printer once, and shows them until they are printed", async () => {
    URL.createObjectURL = () => "blob:pages";
    URL.revokeObjectURL = () => undefined;
    const { user, sent } = open(
      printing({ runs: [{ ...printing().runs[0]!, sent: false }] }),
      { "POST /api/batches/{id}/runs/{run}/open": "%PDF" },
      "/print/7?printer=2",
    );
    await user.click(
      await screen.findByRole("button", { name: "Open the 2 sheets whose numbers are taken…" }),
    );
    const dialog = within(screen.getByRole("dialog"));
    await user.dblClick(dialog.getByRole("button", { name: "Get the pages" }));
    const link = await dialog.findByRole("link", { name: "Show 2 sheets to print" });
    expect(link.getAttribute("href")).toBe("blob:pages");
    expect(sent).toEqual([{ path: "/api/batches/7/runs/5/open", body: { printer: 2 } }]);
  });

  it("renumbers the rest of a run on numbered stock, and only there", async () => {
    open(printing(), {}, "/print/7?at=1");
    expect(await screen.findByRole("button", { name: "Spoiled…" })).toBeTruthy();
    expect(screen.queryByRole("button", { name: "The paper says…" })).toBeNull();
    cleanup();
    const { user, sent } = open(
      printing({ paperHasNumbers: true }),
      { "POST /api/batches/{id}/paper-says": printing({ paperHasNumbers: true }) },
      "/print/7?at=1",
    );
    await user.click(await screen.findByRole("button", { name: "The paper says…" }));
    const dialog = within(screen.getByRole("dialog", { name: "From sheet 41201 on" }));
    await user.type(dialog.getByLabelText("The number on its paper"), "41202");
    await user.type(dialog.getByLabelText("How it came about"), "two fed at once");
    await user.click(dialog.getByRole("button", { name: "Renumber the rest" }));
    expect(sent).toEqual([
      { path: "/api/batches/7/paper-says", body: { document: 1, says: 41202, why: "two fed at once" } },
    ]);
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  });
});
