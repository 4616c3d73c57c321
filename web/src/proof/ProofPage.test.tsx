import { cleanup, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Problem, serve, type Answers } from "../tests/served";
import { ProofPage } from "./ProofPage";

const HEAD = "ab".repeat(32);

function open(answers: Answers = {}, findings: string[] = []) {
  answers["GET /api/proof"] = {
    clean: findings.length === 0,
    laws: [{ law: "L7", statement: "Nobody approved what they prepared", looked: "46 approvals", findings }],
    head: HEAD,
    records: 1903,
  };
  return serve(<ProofPage />, { roles: ["AUDITOR"], answers });
}

describe("the proof", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("shows each law with what was looked at, and the head to keep", async () => {
    open();
    expect(await screen.findByText("Every law holds")).toBeTruthy();
    expect(screen.getByText("holds, 46 approvals")).toBeTruthy();
    expect(screen.getByText(HEAD)).toBeTruthy();
  });

  it("names what is broken", async () => {
    open({}, ["Ines approved batch 7"]);
    expect(await screen.findByText("Something is broken")).toBeTruthy();
    expect(screen.getByText("Ines approved batch 7.")).toBeTruthy();
  });

  it("compares with a head kept outside, and stays open to be read", async () => {
    const answers: Answers = {
      "GET /api/proof/head": { found: true, sentence: "The trail still holds it.", findings: [] },
    };
    const { user } = open(answers);
    await user.click(await screen.findByRole("button", { name: "Compare with a kept head…" }));
    await user.type(screen.getByLabelText(/The head hash/), HEAD);
    await user.click(screen.getByRole("button", { name: "Compare" }));
    expect((await screen.findByRole("status")).textContent).toContain("The trail still holds it");
    answers["GET /api/proof/head"] = {
      found: false,
      sentence: "No record of the trail has this hash.",
      findings: ["record 55 is missing"],
    };
    await user.click(screen.getByRole("button", { name: "Compare" }));
    await waitFor(() => expect(screen.getByRole("status").textContent).toContain("record 55 is missing"));
    expect(screen.getByRole("status").className).toContain("text-rust");
  });

  it("says what a head looks like when something else was typed", async () => {
    const { user } = open({
      "GET /api/proof/head": new Problem(422, "no-hash", "A head hash has 64 digits and letters a to f."),
    });
    await user.click(await screen.findByRole("button", { name: "Compare with a kept head…" }));
    await user.type(screen.getByLabelText(/The head hash/), "abc");
    await user.click(screen.getByRole("button", { name: "Compare" }));
    expect((await screen.findByRole("alert")).textContent).toContain("64 digits");
    expect(screen.queryByRole("status")).toBeNull();
  });
});
