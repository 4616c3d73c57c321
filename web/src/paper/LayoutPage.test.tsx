import { cleanup, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { Problem, serve, type Answers } from "../tests/served";
import { LayoutPage } from "./LayoutPage";
import type { Layout } from "./measures";

const block = (says: Layout["check"][number]["says"], x: number, y: number) =>
  ({ says, x, y, width: 40, height: 5, face: "TEXT", size: 9, align: "LEFT", text: "" }) as const;

const LAYOUT: Layout = {
  format: "level-tally check layout 1",
  page: "LETTER",
  place: "TOP",
  checkHeight: 88.9,
  stubs: 1,
  dates: "WORDS",
  check: [block("PAYEE", 12.7, 30), block("DATE", 120, 12)],
  stub: [block("LINES", 12.7, 6)],
  advice: [],
  columns: [
    { of: "REFERENCE", share: 60 },
    { of: "PAID", share: 40 },
  ],
};

const PAGE: Schemas["LayoutPage"] = {
  series: 4,
  name: "Operations, Checks",
  stock: "blank stock",
  loading: "",
  mayKeep: true,
  mayAlign: true,
  alignments: [{ printer: 1, name: "Office laser", takesPages: true, right: 0, down: -0.4 }],
  layout: LAYOUT,
  inForce: 2,
  newest: 2,
  versions: [
    {
      version: 2,
      from: "2026-11-01",
      why: "date higher",
      madeAt: "2026-10-30T09:00:00Z",
      madeBy: "Ruth Castellane",
      state: "printed on now",
    },
  ],
  blocks: [
    { says: "PAYEE", words: "payee", parts: ["CHECK"] },
    { says: "DATE", words: "date", parts: ["CHECK"] },
    { says: "TEXT", words: "free text", parts: ["CHECK", "STUB"] },
    { says: "LINES", words: "lines", parts: ["STUB"] },
  ],
  samples: [{ value: "PAYMENT", words: "a payment of yours" }],
  dates: [{ value: "WORDS", words: "Fri 13 Nov 2026" }],
  others: [{ series: 4, name: "Operations, Checks" }],
};

const sheet = { width: 612, height: 792, texts: [], rules: [], frames: [], pictures: [] };
const free = { x: 6.35, y: 6.35, width: 203.2, height: 66 };
const drawn = (layout: Layout, findings: Schemas["LayoutFinding"][] = []): Schemas["LayoutView"] => ({
  layout,
  sheet,
  advice: sheet,
  parts: [
    { part: "CHECK", words: "the check", tops: [0], height: 88.9, free },
    { part: "STUB", words: "the stub", tops: [88.9], height: 190.5, free },
    { part: "ADVICE", words: "the advice", tops: [0], height: 279.4, free },
  ],
  findings,
});

type Asked = { body: { layout: Layout } };

async function open(more: Answers = {}, findings: Schemas["LayoutFinding"][] = []) {
  const served = serve(<LayoutPage />, {
    at: "/layouts/4",
    path: "/layouts/:id",
    roles: ["CONTROLLER"],
    answers: {
      "GET /api/series/{id}/layouts": PAGE,
      "POST /api/series/{id}/layouts/draw": drawn(LAYOUT, findings),
      ...more,
    },
  });
  await screen.findByRole("button", { name: "payee, on the check" });
  const last = () => (served.sent.filter((one) => one.path.endsWith("draw")).at(-1) as Asked).body.layout;
  return { ...served, last };
}

/** It can be kept once what was moved is drawn. */
async function askToKeep(user: Awaited<ReturnType<typeof open>>["user"]) {
  const keep = () => screen.getByRole<HTMLButtonElement>("button", { name: "Keep it…" });
  await waitFor(() => expect(keep().disabled).toBe(false));
  await user.click(keep());
}

describe("a layout", () => {
  afterEach(() => {
    cleanup();
    sessionStorage.clear();
  });

  it("is moved and sized by keys, undone and done again", async () => {
    const { user, last } = await open();
    screen.getByRole("button", { name: "date, on the check" }).focus();
    await user.keyboard("{ArrowRight}{Shift>}{ArrowDown}{/Shift}{Control>}{ArrowUp}{/Control}");
    await waitFor(() => expect(last().check[1]).toMatchObject({ x: 120.5, y: 17, height: 4.5 }));
    expect((screen.getByLabelText("From the left, mm") as HTMLInputElement).value).toBe("120.5");
    await user.keyboard("{Control>}z{/Control}");
    await waitFor(() => expect(last().check[1]).toMatchObject({ x: 120.5, y: 17, height: 5 }));
    await user.click(screen.getByRole("button", { name: "Do it again" }));
    await waitFor(() => expect(last().check[1]).toMatchObject({ height: 4.5 }));
  });

  it("takes a length as it is typed, and no other text", async () => {
    const { user, last } = await open();
    screen.getByRole("button", { name: "payee, on the check" }).focus();
    const left = await screen.findByLabelText("From the left, mm");
    await user.clear(left);
    await user.type(left, "15,5");
    expect(await screen.findByText("Type a number, such as 12.5.")).toBeTruthy();
    await user.clear(left);
    await user.type(left, "15.25");
    await waitFor(() => expect(last().check[0]).toMatchObject({ x: 15.25 }));
  });

  it("says at the block and in a list what is wrong, and is not kept before it is right", async () => {
    const { user } = await open({}, [{ part: "CHECK", block: 1, words: "It overlaps the payee." }]);
    const wrong = await screen.findByRole("button", { name: /date, on the check: something is wrong/ });
    expect((screen.getByRole("button", { name: "Test page" }) as HTMLButtonElement).disabled).toBe(true);
    const list = within(screen.getByRole("region", { name: "What is wrong" }));
    await user.click(list.getByRole("button", { name: "date" }));
    expect(wrong.getAttribute("aria-pressed")).toBe("true");
    // and the keyboard is on it
    expect(document.activeElement).toBe(wrong);
    expect(screen.getAllByText("It overlaps the payee.")).toHaveLength(2);
  });

  it("is kept from a day with what changed, and the server's word stays in the form", async () => {
    const answers: Answers = {
      "POST /api/series/{id}/layouts": new Problem(
        409,
        "not-tried",
        "Print a test page of exactly this layout first.",
      ),
    };
    const { user, sent } = await open(answers);
    expect((screen.getByRole("button", { name: "Keep it…" }) as HTMLButtonElement).disabled).toBe(true);
    screen.getByRole("button", { name: "date, on the check" }).focus();
    await user.keyboard("{ArrowRight}");
    await askToKeep(user);
    await user.type(await screen.findByLabelText("What changed, for the trail"), "date further right");
    await user.click(screen.getByRole("button", { name: "Keep it" }));
    expect((await screen.findByRole("alert")).textContent).toContain("Print a test page");
    expect(sent.at(-1)).toMatchObject({
      path: "/api/series/4/layouts",
      body: { why: "date further right", newest: 2, layout: { check: [{}, { x: 120.5 }] } },
    });
  });

  it("goes on as the next version after somebody else's, once that was told", async () => {
    let newest = 2;
    const answers: Answers = {
      "GET /api/series/{id}/layouts": () => ({ ...PAGE, newest }),
      "POST /api/series/{id}/layouts": (body: { newest: number }) =>
        body.newest === newest
          ? { version: newest + 1 }
          : new Problem(409, "changed-meanwhile", "Version 3 was kept meanwhile."),
    };
    const { user, sent } = await open(answers);
    screen.getByRole("button", { name: "date, on the check" }).focus();
    await user.keyboard("{ArrowRight}");
    newest = 3;
    await askToKeep(user);
    await user.type(await screen.findByLabelText("What changed, for the trail"), "mine");
    await user.click(screen.getByRole("button", { name: "Keep it" }));
    expect((await screen.findByRole("alert")).textContent).toContain("Version 3 was kept meanwhile");
    expect((screen.getByLabelText("What changed, for the trail") as HTMLTextAreaElement).value).toBe("mine");
    await waitFor(() => screen.getByRole("dialog", { name: "Keep version 4 of Operations, Checks" }));
    await user.click(screen.getByRole("button", { name: "Keep it" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(sent.filter((one) => one.path === "/api/series/4/layouts").at(-1)).toMatchObject({
      body: { newest: 3, layout: { check: [{}, { x: 120.5 }] } },
    });
  });

  it("begins from a file only when the server can read it", async () => {
    const answers: Answers = {};
    const { user } = await open(answers);
    await user.click(screen.getByRole("button", { name: "Begin from another…" }));
    const file = await screen.findByLabelText("What stands in a layout's file");
    await user.click(file);
    await user.paste("{not whole");
    await user.click(screen.getByRole("button", { name: "Begin from the file" }));
    expect((await screen.findByRole("alert")).textContent).toContain("it is not whole");
  });
});
