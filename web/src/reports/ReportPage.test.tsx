import { cleanup, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import { serve } from "../tests/served";
import { PaymentsListPage } from "./ReportPage";

describe("a list of what will be paid", () => {
  afterEach(cleanup);

  it("shows each payee with rows and totals, and leads to the same as PDF and CSV", async () => {
    serve(<PaymentsListPage />, {
      path: "/batches/:id/list",
      at: "/batches/7/list",
      answers: {
        "GET /api/reports/{name}": {
          title: "What will be paid: Week 46",
          facts: ["approved"],
          heads: [
            { title: "Reference", share: 3, right: false },
            { title: "Paid", share: 1, right: true },
          ],
          lines: [
            { kind: "GROUP", cells: ["Bollard Foundry", "by mail"] },
            { kind: "ROW", cells: ["BF-1", "10.00"] },
            { kind: "TOTAL", cells: ["1 payment", "10.00"] },
          ],
        },
      },
    });
    const grid = within(await screen.findByRole("grid", { name: "What will be paid: Week 46" }));
    expect(grid.getByText("Bollard Foundry")).toBeTruthy();
    expect(grid.getByText("BF-1")).toBeTruthy();
    expect(grid.getAllByText("10.00")).toHaveLength(2);
    expect(screen.getByRole("link", { name: "PDF" }).getAttribute("href")).toBe(
      "/api/reports/payments-list/pdf?batch=7",
    );
    expect(screen.getByRole("link", { name: "CSV" }).getAttribute("href")).toBe(
      "/api/reports/payments-list/csv?batch=7",
    );
  });
});
