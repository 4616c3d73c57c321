import { cleanup, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { serve, type Answers } from "../tests/served";
import { DeputiesPage } from "./DeputiesPage";

const deputy = (id: number, state: string, mayEnd: boolean) => ({
  id,
  person: "Ruth Castellane",
  deputy: "Maren Lindqvist",
  from: "2026-11-12",
  until: "2026-11-20",
  namedBy: "Ruth Castellane",
  state,
  mayEnd,
});

function open(roles: string[], answers: Answers) {
  return serve(<DeputiesPage />, {
    roles,
    answers: {
      "GET /api/people/names": [
        { id: 1, name: "Somebody", roles: ["APPROVER"] },
        { id: 2, name: "Ines Okafor", roles: ["CLERK"] },
        { id: 4, name: "Aldo Ferreira", roles: ["APPROVER"] },
      ],
      ...answers,
    },
  });
}

describe("deputies", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("are named for oneself among those who may approve", async () => {
    const { user, sent } = open(["APPROVER"], { "GET /api/deputies": [], "POST /api/deputies": undefined });
    await user.click(await screen.findByRole("button", { name: "Name a deputy…" }));
    await screen.findByRole("option", { name: "Aldo Ferreira" });
    const whom = [...screen.getByLabelText<HTMLSelectElement>("For").options].map((o) => o.text);
    expect(whom).toEqual(["Somebody"]);
    const choices = [...(screen.getByLabelText("Deputy") as HTMLSelectElement).options].map((o) => o.text);
    expect(choices).toEqual(["choose somebody", "Aldo Ferreira"]);
    await user.selectOptions(screen.getByLabelText("Deputy"), "4");
    await user.click(screen.getByRole("button", { name: "Name the deputy" }));
    expect(sent).toEqual([
      {
        path: "/api/deputies",
        body: { person: 1, deputy: 4, from: "2026-11-12", until: "2026-11-12" },
      },
    ]);
  });

  it("are named for others by an administrator", async () => {
    const { user } = open(["ADMINISTRATOR"], { "GET /api/deputies": [] });
    await user.click(await screen.findByRole("button", { name: "Name a deputy…" }));
    expect((screen.getByLabelText("For") as HTMLSelectElement).disabled).toBe(false);
  });

  it("are ended by whoever may", async () => {
    const { user, sent } = open(["APPROVER"], {
      "GET /api/deputies": [deputy(8, "NOW", true), deputy(7, "OVER", false)],
      "POST /api/deputies/{id}/end": undefined,
    });
    const grid = await screen.findByRole("grid", { name: "Deputies" });
    grid.focus();
    await user.click(screen.getByRole("button", { name: "End it now" }));
    expect(sent).toEqual([{ path: "/api/deputies/8/end", body: undefined }]);
    grid.focus();
    await user.keyboard("{ArrowDown}");
    expect((screen.getByRole("button", { name: "End it now" }) as HTMLButtonElement).disabled).toBe(true);
  });

  it("are only read by a clerk", async () => {
    open(["CLERK"], { "GET /api/deputies": [deputy(8, "NOW", false)] });
    expect(await screen.findByText("stands in now")).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Name a deputy…" })).toBeNull();
  });
});
