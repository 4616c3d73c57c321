import { render, screen } from "@testing-library/react";
import { lazy, Suspense } from "react";
import { describe, expect, it, vi } from "vitest";
import { Boundary, NotFetched } from "./Boundary";

describe("a page that cannot be shown", () => {
  it("says whether it stumbled or did not come at all", async () => {
    vi.spyOn(console, "error").mockImplementation(() => undefined);
    const Missing = lazy(() => Promise.reject(new NotFetched()));
    const { unmount } = render(
      <Boundary>
        <Suspense>
          <Missing />
        </Suspense>
      </Boundary>,
    );
    expect((await screen.findByRole("alert")).textContent).toContain("the server is not there");
    unmount();
    const Broken = () => {
      throw new Error("x");
    };
    render(
      <Boundary>
        <Broken />
      </Boundary>,
    );
    expect(screen.getByRole("alert").textContent).toContain("stumbled");
  });
});
