import { cleanup, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { serve } from "../tests/served";
import { ApprovalStation } from "./ApprovalStation";

const batch = (
  id: number,
  name: string,
  more: Partial<Schemas["WaitingBatch"]> = {},
): Schemas["WaitingBatch"] => ({
  id,
  name,
  account: "Operations",
  amount: { text: "100.00", currency: "USD" },
  by: "check",
  claims: 2,
  marked: 1,
  checkDate: "2026-11-13",
  sentBy: "Ines Okafor",
  sentAt: "2026-11-12T06:00:00Z",
  step: 1,
  steps: 2,
  stepName: "Approval",
  route: "Over a limit",
  round: 1,
  mine: true,
  whyNot: "",
  escalated: false,
  ...more,
});
const change = (
  id: number,
  vendorName: string,
  more: Partial<Schemas["ChangeView"]> = {},
): Schemas["ChangeView"] => ({
  id,
  vendor: id,
  vendorName,
  remitTo: id,
  what: "new address",
  before: [],
  beforeBank: "",
  after: [vendorName, "1 Quay"],
  afterBank: "",
  why: "a file",
  proposedBy: "Ines Okafor",
  proposedAt: "2026-11-12T08:00:00Z",
  state: "PROPOSED",
  decidedWhy: "",
  mine: false,
  typesAccount: false,
  ...more,
});

function desk(
  roles: string[],
  batches: Schemas["WaitingBatch"][],
  changes: Schemas["ChangeView"][] = [],
  answers: Record<string, unknown> = {},
) {
  return serve(<ApprovalStation />, {
    path: "/approval",
    roles,
    answers: {
      "GET /api/work": { today: "2026-11-12", currency: "USD", stations: [] },
      "GET /api/approval": {
        batches,
        mine: [{ text: "100.00", currency: "USD" }],
        now: "2026-11-12T09:00:00Z",
      },
      "GET /api/vendor-changes": changes,
      "GET /api/undoing": [],
      ...answers,
    },
  });
}

const rows = async () =>
  within(await screen.findByRole("grid", { name: "What waits" }))
    .getAllByRole("row")
    .slice(1)
    .map((row) => row.textContent);

describe("the approval desk", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("puts what waits for its reader first, with how long it waits", async () => {
    desk(["APPROVER"], [batch(1, "Mine"), batch(2, "Theirs", { mine: false, whyNot: "It waits for Aldo." })]);
    const seen = await rows();
    expect(seen[0]).toContain("Waits for you (1)");
    expect(seen[1]).toContain("MineApproval, 1 of 2");
    expect(seen[1]).toContain("3 h");
    expect(seen[2]).toContain("Waits for others (1)");
    expect(seen[3]).toContain("Theirs");
  });

  it("opens the batch by Enter", async () => {
    const { user } = desk(["APPROVER"], [batch(9, "Mine")]);
    (await screen.findByRole("grid", { name: "What waits" })).focus();
    await user.keyboard("{Enter}");
    expect((await screen.findByLabelText("went to")).textContent).toBe("/approval/9");
  });

  it("says for whom a deputy answers, and why a batch waits for others", async () => {
    const { user } = desk(
      ["APPROVER"],
      [
        batch(1, "Mine", { onBehalfOf: "Aldo Ferreira" }),
        batch(2, "Theirs", { mine: false, whyNot: "It waits for Aldo." }),
      ],
    );
    expect(await screen.findByText("You answer for Aldo Ferreira, whose deputy you are.")).toBeTruthy();
    (await screen.findByRole("grid", { name: "What waits" })).focus();
    await user.keyboard("{ArrowDown}");
    expect(await screen.findByText("It waits for Aldo.")).toBeTruthy();
  });

  it("gives vendor changes to controllers, but not their own", async () => {
    desk(["CONTROLLER"], [], [change(3, "Plover"), change(4, "Heron", { mine: true })]);
    const seen = await rows();
    expect(seen[0]).toContain("Waits for you (1)");
    expect(seen[1]).toContain("Plover: new address");
    expect(seen[2]).toContain("Waits for others (1)");
    expect(seen[3]).toContain("Heron");
    cleanup();
    desk(["APPROVER"], [], [change(3, "Plover")]);
    expect((await rows())[0]).toContain("Waits for others (1)");
  });

  it("confirms the addresses of a whole file in one deed", async () => {
    const { user, sent } = desk(
      ["CONTROLLER"],
      [],
      [change(3, "Plover"), change(4, "Heron"), change(5, "Skua", { typesAccount: true })],
      { "POST /api/vendor-changes/confirm": { count: 2 } },
    );
    await user.click(await screen.findByRole("button", { name: "Confirm all 2…" }));
    const dialog = screen.getByRole("dialog");
    expect(within(dialog).getByText("Plover")).toBeTruthy();
    expect(within(dialog).queryByText("Skua")).toBeNull();
    await user.click(within(dialog).getByRole("button", { name: "Confirm 2" }));
    expect(sent).toEqual([{ path: "/api/vendor-changes/confirm", body: { ids: [3, 4] } }]);
  });

  it("says what will appear where nothing waits", async () => {
    desk(["APPROVER"], []);
    expect(await screen.findByText(/What clerks send appears here/)).toBeTruthy();
  });
});
