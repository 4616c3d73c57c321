import { cleanup, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { Problem, serve } from "../tests/served";
import { WiresPage } from "./WiresPage";

const wire = (more: Partial<Schemas["WireLine"]> = {}): Schemas["WireLine"] => ({
  claim: 1,
  payment: 11,
  called: "W1001",
  payee: "Marlinspike Data",
  bank: "account ••••1238",
  amount: "1,280.00",
  step: "LISTED",
  why: "",
  bankReference: "",
  fee: "",
  listedOn: "2026-11-12",
  confirmedBy: "",
  ...more,
});

const page = (wires: Schemas["WireLine"][], more: Record<string, unknown> = {}, at = "/wires/7?at=1") =>
  serve(<WiresPage />, {
    path: "/wires/:id",
    at,
    answers: {
      "GET /api/batches/{id}": {
        id: 7,
        name: "Deposits",
        stateWords: "on the list",
        checkDate: "2026-11-12",
      },
      "GET /api/batches/{id}/level": { tallies: [], vials: [] },
      "GET /api/batches/{id}/wires": {
        accountName: "Operations",
        currency: "USD",
        way: "Wires by list",
        listable: true,
        toList: 0,
        toListAmount: "0.00",
        fees: "",
        payments: wires,
      },
      ...more,
    },
  });

describe("wires", () => {
  beforeEach(() => sessionStorage.clear());
  afterEach(cleanup);

  it("shows what is typed at the bank when asked to, and copies it part by part", async () => {
    page([wire()], { "POST /api/wires/{payment}/open": [{ label: "Account", value: "6120191238" }] });
    const user = userEvent.setup();
    const copied = vi.spyOn(navigator.clipboard, "writeText").mockResolvedValue();
    const show = await screen.findByRole("button", { name: "Show what is typed at the bank" });
    expect(screen.queryByText("6120191238")).toBeNull();
    await user.click(show);
    await user.click(await screen.findByRole("button", { name: "Copy Account" }));
    expect(copied).toHaveBeenCalledWith("6120191238");
    await screen.findByText("Copied");
  });

  it("keeps what was typed of the bank's answer when it is refused, at its field", async () => {
    const { sent } = page([wire()], {
      "POST /api/wires/{payment}/confirm": new Problem(
        422,
        "wire-reference-used",
        "Another wire from this account carries FT 1 already.",
        { bankReference: "Another wire from this account carries FT 1 already." },
      ),
    });
    const user = userEvent.setup();
    await user.type(await screen.findByLabelText("Its reference"), "FT 1");
    await user.click(screen.getByRole("button", { name: "The bank sent it" }));
    await screen.findByText("Another wire from this account carries FT 1 already.");
    expect((screen.getByRole("textbox", { name: /Its reference/ }) as HTMLInputElement).value).toBe("FT 1");
    expect(sent).toContainEqual({
      path: "/api/wires/11/confirm",
      body: { bankReference: "FT 1", fee: "", sentOn: "2026-11-12" },
    });
  });

  it("takes out only what the bank has not sent", async () => {
    page([wire({ step: "CONFIRMED", bankReference: "FT 1" })]);
    await waitFor(async () =>
      expect(((await screen.findByRole("button", { name: "Take out…" })) as HTMLButtonElement).disabled).toBe(
        true,
      ),
    );
    screen.getByText("1 confirmed: go to posting");
  });
});
