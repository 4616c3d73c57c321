import { cleanup, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Problem, serve } from "../tests/served";
import type { Question } from "./criteria";
import { MakeRun } from "./MakeRun";
import type { DueView } from "./useDueList";

const part = (
  account: number,
  way: number,
  by: string,
  invoices: number,
  text: string,
  currency = "USD",
) => ({
  account,
  accountName: currency === "USD" ? "Operations" : "Continental",
  way,
  wayName: by,
  by,
  checkDate: "2026-11-13",
  invoices,
  payments: 1,
  toPay: { text, currency },
});

function dialog(answers: Record<string, unknown>) {
  return serve(
    <MakeRun
      open
      onClose={() => undefined}
      question={{ account: 1, checkDate: "2026-11-13" } as Question}
      view={{ checkDate: "2026-11-13" } as DueView}
      criteria={undefined}
    />,
    {
      answers: {
        "GET /api/batches/run": [
          part(1, 70, "check", 12, "4,100.00"),
          part(1, 71, "ACH", 3, "512.20"),
          part(2, 80, "credit transfer", 2, "90.00", "EUR"),
        ],
        ...answers,
      },
    },
  );
}

describe("a run in every way it is paid", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
    localStorage.clear();
  });

  it("makes the batches of the ways that are chosen, as they were seen", async () => {
    const { sent, user } = dialog({ "POST /api/batches/run": { batches: [5, 6] } });
    expect(await screen.findByText("90.00 EUR")).toBeTruthy();
    await user.click(screen.getByRole("checkbox", { name: "ACH" }));
    await user.click(screen.getByRole("button", { name: "Make 2 batches" }));
    expect((await screen.findByLabelText("went to")).textContent).toBe("/batches");
    expect(sent).toHaveLength(1);
    expect(sent[0]!.body).toMatchObject({
      name: "Run of Fri 13 Nov",
      parts: [
        { account: 1, way: 70, expectedCount: 12, expectedToPay: "4,100.00" },
        { account: 2, way: 80, expectedCount: 2, expectedToPay: "90.00" },
      ],
    });
  });

  it("opens the only batch", async () => {
    const { user } = dialog({ "POST /api/batches/run": { batches: [5] } });
    await user.click(await screen.findByRole("checkbox", { name: "ACH" }));
    await user.click(screen.getByRole("checkbox", { name: "credit transfer" }));
    await user.click(screen.getByRole("button", { name: "Make the batch" }));
    expect((await screen.findByLabelText("went to")).textContent).toBe("/batches/5");
  });

  it("keeps what was typed where it is refused, and looks again", async () => {
    let looks = 0;
    const { user } = dialog({
      "GET /api/batches/run": () => [part(1, 70, "check", 12 + looks++, "4,100.00")],
      "POST /api/batches/run": new Problem(409, "list-changed", "The list changed meanwhile: 13 invoices."),
    });
    await user.type(await screen.findByLabelText("Note for the approver"), "rent");
    await user.click(await screen.findByRole("button", { name: "Make the batch" }));
    expect(await screen.findByText("The list changed meanwhile: 13 invoices.")).toBeTruthy();
    expect(await screen.findByText("13")).toBeTruthy();
    expect((screen.getByLabelText("Note for the approver") as HTMLTextAreaElement).value).toBe("rent");
  });

  it("says why it cannot be asked", async () => {
    dialog({ "GET /api/batches/run": new Problem(400, "limit-of-one", "A limit is of one batch.") });
    expect(await screen.findByText("A limit is of one batch.")).toBeTruthy();
  });
});
