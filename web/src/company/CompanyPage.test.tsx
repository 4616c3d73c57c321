import { screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { Problem, serve } from "../tests/served";
import { CompanyPage } from "./CompanyPage";

const COMPANY = {
  name: "Marrow Bay Ferries",
  address: ["4 Ropewalk Quay", "Skerrow"],
  graceDays: 0,
  staleDays: 180,
  zone: "",
  firstMonth: 1,
  version: 3,
  mayChange: true,
};

describe("the company", () => {
  it("says at its field what cannot be so, and keeps what was typed", async () => {
    sessionStorage.clear();
    const { user, sent } = serve(<CompanyPage />, {
      path: "/company",
      roles: ["CONTROLLER"],
      answers: {
        "GET /api/company": COMPANY,
        "GET /api/trail/of": [],
        "POST /api/company": new Problem(422, "stale-days", "A check turns stale after 30 to 730 days.", {
          staleDays: "A check turns stale after 30 to 730 days.",
        }),
      },
    });
    const stale = await screen.findByLabelText(/stale after so many days/);
    await user.clear(stale);
    await user.type(stale, "five");
    await user.click(screen.getByRole("button", { name: "Change the company" }));
    expect((await screen.findByRole("alert")).textContent).toContain("30 to 730 days");
    // what is no number is never read as another
    expect(sent.at(-1)?.body).toMatchObject({ staleDays: -1, graceDays: 0, version: 3 });
    expect((stale as HTMLInputElement).value).toBe("five");
    await user.click(screen.getByRole("button", { name: "Leave it as it was" }));
    expect((screen.getByLabelText(/stale after so many days/) as HTMLInputElement).value).toBe("180");
  });

  it("keeps what was typed when somebody else was first, and says so", async () => {
    sessionStorage.clear();
    let version = 3;
    const { user, sent } = serve(<CompanyPage />, {
      path: "/company",
      roles: ["CONTROLLER"],
      answers: {
        "GET /api/company": () => ({ ...COMPANY, version }),
        "GET /api/trail/of": [],
        "POST /api/company": () => {
          version = 4;
          return new Problem(409, "changed-meanwhile", "Somebody changed the company meanwhile.");
        },
      },
    });
    const name = (await screen.findByLabelText("Name")) as HTMLInputElement;
    await user.type(name, " Ltd");
    await user.click(screen.getByRole("button", { name: "Change the company" }));
    expect((await screen.findByRole("alert")).textContent).toContain("changed the company meanwhile");
    expect((screen.getByLabelText("Name") as HTMLInputElement).value).toBe("Marrow Bay Ferries Ltd");
    await user.click(screen.getByRole("button", { name: "Change the company" }));
    expect(sent.at(-1)?.body).toMatchObject({ name: "Marrow Bay Ferries Ltd", version: 4 });
  });

  it("is only read by whoever may not change it", async () => {
    serve(<CompanyPage />, {
      path: "/company",
      roles: ["AUDITOR"],
      answers: { "GET /api/company": { ...COMPANY, mayChange: false }, "GET /api/trail/of": [] },
    });
    expect((await screen.findByLabelText("Name")).matches(":disabled")).toBe(true);
    expect(screen.queryByRole("button", { name: "Change the company" })).toBeNull();
  });
});
