import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { RouteSteps } from "./RouteSteps";

const step = (more: Partial<Schemas["RouteStepView"]>): Schemas["RouteStepView"] => ({
  name: "Approval",
  who: "1 approver",
  needed: 1,
  given: [],
  state: "LATER",
  asked: [],
  secondLine: [],
  ...more,
});
const route = (
  steps: Schemas["RouteStepView"][],
  more: Partial<Schemas["RouteView"]> = {},
): Schemas["RouteView"] => ({
  route: "Large",
  why: "the total is over",
  sent: true,
  now: "2026-11-12T09:00:00Z",
  steps,
  considered: [],
  shortOf: "",
  ...more,
});
const text = (index: number) => screen.getAllByRole("listitem")[index]!.textContent;

describe("a route", () => {
  afterEach(cleanup);

  it("says who answered, for whom, and who is asked now", () => {
    render(
      <RouteSteps
        route={route([
          step({
            state: "DONE",
            given: [{ who: "Ruth Castellane", onBehalfOf: "Aldo Ferreira", at: "2026-11-12T08:00:00Z" }],
          }),
          step({
            name: "Second",
            state: "NOW",
            openedAt: "2026-11-12T08:55:00Z",
            asked: ["Maren Lindqvist"],
          }),
          step({ name: "Third" }),
        ])}
      />,
    );
    expect(text(0)).toContain("approved by Ruth Castellane for Aldo Ferreira");
    expect(text(1)).toContain("waits, 5 min");
    expect(text(1)).toContain("asked: Maren Lindqvist");
    expect(text(2)).toContain("later");
  });

  it("tells of reminders and of the second line", () => {
    render(
      <RouteSteps
        route={route([
          step({
            state: "NOW",
            asked: ["Maren Lindqvist"],
            remindedAt: "2026-11-12T08:00:00Z",
            escalatedAt: "2026-11-12T09:00:00Z",
            secondLine: ["Ruth Castellane"],
          }),
        ])}
      />,
    );
    expect(text(0)).toContain("reminded");
    expect(text(0)).toContain("second line asked");
    expect(text(0)).toContain("Ruth Castellane");
  });

  it("says what to do when nobody can answer, or nobody ever could", () => {
    render(<RouteSteps route={route([step({ state: "NOW" })])} />);
    expect(text(0)).toContain("nobody can answer this step now; send the batch back or name a deputy");
    cleanup();
    render(<RouteSteps route={route([step({})], { sent: false, shortOf: "Approval" })} />);
    expect(screen.getByRole("alert").textContent).toContain("Ask the controller to change the route");
    expect(text(0)).not.toContain("later");
  });
});
