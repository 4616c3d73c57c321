import { cleanup, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Problem, serve, type Answers } from "../tests/served";
import { SignIn } from "./SignIn";

const door = (more: object = {}) => ({
  demo: false,
  password: "",
  people: [],
  needsFirstAdministrator: false,
  ...more,
});

function open(answers: Answers) {
  return serve(<SignIn />, { answers });
}

describe("the door", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("takes a name and a password", async () => {
    const { user, sent } = open({ "GET /api/session/door": door(), "POST /api/session": {} });
    await user.type(screen.getByLabelText("Name to sign in with"), "ines");
    await user.type(screen.getByLabelText("Password"), "copper lantern tide nine{enter}");
    expect(sent).toEqual([
      { path: "/api/session", body: { signIn: "ines", password: "copper lantern tide nine" } },
    ]);
  });

  it("says what does not fit, and keeps the name", async () => {
    const { user } = open({
      "GET /api/session/door": door(),
      "POST /api/session": new Problem(403, "wrong-sign-in", "This name and password do not fit."),
    });
    await user.type(screen.getByLabelText("Name to sign in with"), "ines");
    await user.type(screen.getByLabelText("Password"), "wrong{enter}");
    expect((await screen.findByRole("alert")).textContent).toContain("do not fit");
    expect((screen.getByLabelText("Name to sign in with") as HTMLInputElement).value).toBe("ines");
  });

  it("offers the made-up people in the demo, and nobody outside it", async () => {
    const { user, sent } = open({
      "GET /api/session/door": door({
        demo: true,
        password: "skerrow-ferries",
        people: [{ signIn: "ruth", name: "Ruth Castellane", roles: ["CONTROLLER"] }],
      }),
      "POST /api/session": {},
    });
    await user.click(await screen.findByRole("button", { name: /Ruth Castellane/ }));
    expect(sent[0]?.body).toEqual({ signIn: "ruth", password: "skerrow-ferries" });
    cleanup();
    open({ "GET /api/session/door": door() });
    await screen.findByRole("button", { name: "Sign in" });
    expect(screen.queryByText(/a made-up company/)).toBeNull();
  });

  it("makes the first administrator with the setup code, and asks again when it does not fit", async () => {
    const answers: Answers = {
      "GET /api/session/door": door({ needsFirstAdministrator: true }),
      "POST /api/session/first-administrator": new Problem(403, "setup-code", "The setup code does not fit."),
    };
    const { user, sent } = open(answers);
    await user.type(await screen.findByLabelText("Setup code"), "the code on paper");
    await user.type(screen.getByLabelText("Name to sign in with"), "joss");
    await user.type(screen.getByLabelText("Full name"), "Joss Whitlock");
    await user.type(screen.getByLabelText(/Password, 12 characters/), "copper lantern tide nine");
    await user.click(screen.getByRole("button", { name: "Make the administrator" }));
    expect((await screen.findByRole("alert")).textContent).toContain("setup code does not fit");
    expect((screen.getByLabelText("Full name") as HTMLInputElement).value).toBe("Joss Whitlock");
    answers["POST /api/session/first-administrator"] = undefined;
    answers["GET /api/session/door"] = door();
    await user.click(screen.getByRole("button", { name: "Make the administrator" }));
    expect(await screen.findByRole("button", { name: "Sign in" })).toBeTruthy();
    expect(sent[1]?.body).toEqual({
      code: "the code on paper",
      signIn: "joss",
      name: "Joss Whitlock",
      password: "copper lantern tide nine",
    });
  });
});
