import { act, cleanup, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter, useLocation, useNavigate } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { useAddress } from "./address";

const at = ({ children }: { children: ReactNode }) => (
  <MemoryRouter initialEntries={["/due?account=7"]}>{children}</MemoryRouter>
);

function opened() {
  return renderHook(
    () => {
      const [values, change] = useAddress();
      return { values, change, address: useLocation().search, navigate: useNavigate() };
    },
    { wrapper: at },
  ).result;
}

describe("useAddress", () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => {
    cleanup();
    vi.useRealTimers();
  });

  it("reads the address it was opened with", () => {
    expect(opened().current.values).toEqual({ account: "7" });
  });

  it("changes at once and writes the address when it rests", () => {
    const view = opened();
    act(() => view.current.change({ at: "1" }));
    act(() => view.current.change({ at: "2" }));
    expect(view.current.values.at).toBe("2");
    expect(view.current.address).toBe("?account=7");
    act(() => void vi.advanceTimersByTime(300));
    expect(view.current.address).toBe("?account=7&at=2");
  });

  it("writes at once before Enter or the mouse leads elsewhere", () => {
    const view = opened();
    act(() => view.current.change({ at: "1" }));
    act(() => void document.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowDown" })));
    expect(view.current.address).toBe("?account=7");
    act(() => void document.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter" })));
    expect(view.current.address).toBe("?account=7&at=1");
    act(() => view.current.change({ at: "2" }));
    act(() => void document.dispatchEvent(new Event("pointerdown")));
    expect(view.current.address).toBe("?account=7&at=2");
  });

  it("leaves out what is empty", () => {
    const view = opened();
    act(() => view.current.change({ account: undefined, out: "" }));
    act(() => void vi.advanceTimersByTime(300));
    expect(view.current.address).toBe("");
  });

  it("follows a link that somebody else opened", () => {
    const view = opened();
    act(() => void view.current.navigate("/due?vendor=9"));
    expect(view.current.values).toEqual({ vendor: "9" });
  });
});
