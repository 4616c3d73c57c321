import { cleanup, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { serve } from "../tests/served";
import { MovePayment } from "./MovePayment";

afterEach(cleanup);

it("moves a payment into the draft or the way that is chosen, and says what is against the others", async () => {
  const way = (more: Partial<Schemas["WayInstead"]>): Schemas["WayInstead"] => ({
    account: 1,
    accountName: "Operations",
    way: 5,
    name: "ACH",
    by: "ACH",
    against: "",
    drafts: [{ batch: 88, name: "Week 46, by ACH" }],
    ...more,
  });
  const batch = { id: 7, version: 4 } as Schemas["BatchView"];
  const claim = { id: 3, payee: "Bollard Foundry", lines: [{ kind: "INVOICE" }] } as Schemas["ClaimView"];
  const { sent } = serve(<MovePayment batch={batch} claim={claim} />, {
    answers: {
      "GET /api/batches/{id}/claims/{claim}/ways": [
        way({}),
        way({ way: 6, name: "Wires", by: "wire", drafts: [], against: "no bank details. Propose them." }),
      ],
      "POST /api/batches/{id}/claims/{claim}/way": 89,
    },
  });
  const user = userEvent.setup();
  await user.click(screen.getByRole("button", { name: "Pay it another way…" }));
  await screen.findByText("By Wires: no bank details. Propose them.");
  await user.click(screen.getByLabelText(/a new batch, by ACH/));
  await user.click(screen.getByRole("button", { name: "Pay it by ACH" }));
  await waitFor(() =>
    expect(sent).toContainEqual({
      path: "/api/batches/7/claims/3/way",
      body: { version: 4, account: 1, way: 5, into: undefined },
    }),
  );
});
