import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { api, type Schemas } from "../api/client";
import { Problem, serve } from "../tests/served";
import { TrailFold } from "./TrailOf";
import { TrailPage } from "./TrailPage";

const record = (sequence: number, more: Partial<Schemas["TrailView"]> = {}): Schemas["TrailView"] => ({
  sequence,
  at: "2026-11-12T08:00:00Z",
  who: "Tomas Brandt",
  from: "127.0.0.1",
  deed: "change batch",
  subject: "batch 7",
  kind: "batch",
  key: "7",
  name: "Week 46",
  facts: [
    { name: "what", value: "took out T-1" },
    { name: "before", value: "83.20 USD" },
    { name: "after", value: "41.61 USD" },
  ],
  hash: "ab".repeat(32),
  ...more,
});

function open(records: Schemas["TrailView"][], at = "/trail") {
  return serve(<TrailPage />, {
    path: "/trail",
    at,
    roles: ["AUDITOR"],
    answers: {
      "GET /api/trail": records,
      "GET /api/trail/deeds": ["change batch", "make batch"],
      "GET /api/people/names": [{ id: 5, name: "Ruth Castellane", roles: ["CONTROLLER"] }],
    },
  });
}

describe("the trail", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("says who did what to what, before and after", async () => {
    const { user } = open([record(12), record(11, { subject: "routes", kind: "routes", key: "", name: "" })]);
    (await screen.findByRole("grid", { name: "Records, newest first" })).focus();
    expect(await screen.findByText(/Tomas Brandt, .*, from 127\.0\.0\.1\./)).toBeTruthy();
    expect(screen.getByRole("link", { name: "Week 46" }).getAttribute("href")).toBe("/batches/7");
    expect(screen.getByText("83.20 USD")).toBeTruthy();
    expect(screen.getByText("ab".repeat(32))).toBeTruthy();
    await user.keyboard("{ArrowDown}");
    expect(screen.queryByRole("link", { name: "Week 46" })).toBeNull();
  });

  it("is asked for by its sentence, and taken away by the same", async () => {
    open([record(12)], "/trail?person=5&deed=make%20batch&from=2026-11-01&text=rope");
    expect(await screen.findByRole("button", { name: "Who: Ruth Castellane" })).toBeTruthy();
    expect(screen.getByRole("button", { name: "Deed: make batch" })).toBeTruthy();
    expect(api.GET).toHaveBeenCalledWith("/api/trail", {
      params: {
        query: expect.objectContaining({
          person: 5,
          deed: "make batch",
          from: "2026-11-01",
          text: "rope",
        }) as unknown,
      },
    });
    const lines = screen.getByRole("link", { name: "JSON Lines" }).getAttribute("href");
    expect(lines).toBe("/api/trail/jsonl?person=5&deed=make+batch&from=2026-11-01&text=rope");
  });

  it("looks for words", async () => {
    const { user } = open([record(12)]);
    await user.click(await screen.findByRole("button", { name: "Words: any words" }));
    await user.type(screen.getByLabelText("Words in the record"), "rope{enter}");
    expect(await screen.findByRole("button", { name: "Words: “rope”" })).toBeTruthy();
  });

  it("shows everything done to one thing, and everything again", async () => {
    const { user } = open([record(12)]);
    (await screen.findByRole("grid", { name: "Records, newest first" })).focus();
    await user.click(await screen.findByRole("button", { name: "Everything done to it" }));
    expect(await screen.findByText(/of batch 7/)).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "of everything" }));
    expect(screen.queryByText(/of batch 7/)).toBeNull();
  });

  it("of one thing is read only when somebody opens it", async () => {
    serve(<TrailFold subject="batch 7" />, { answers: { "GET /api/trail/of": [record(12)] } });
    expect(api.GET).not.toHaveBeenCalled();
    await userEvent.click(screen.getByText("Trail of batch 7"));
    expect(await screen.findByText("change batch")).toBeTruthy();
    cleanup();
    serve(<TrailFold subject="batch 8" />, {
      answers: { "GET /api/trail/of": new Problem(404, "no-thing", "There is no trail of such a thing.") },
    });
    await userEvent.click(screen.getByText("Trail of batch 8"));
    expect(await screen.findByText("There is no trail of such a thing.")).toBeTruthy();
  });
});
