import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { connection } from "../api/client";
import { Connection } from "./Connection";

afterEach(() => {
  act(() => connection.set(true));
  cleanup();
});

it("shows everything as it is once anything is answered again, were it a deed pressed once more", () => {
  const queries = new QueryClient();
  const asked = vi.spyOn(queries, "invalidateQueries");
  render(
    <QueryClientProvider client={queries}>
      <Connection />
    </QueryClientProvider>,
  );
  expect(screen.queryByRole("status")).toBeNull();
  act(() => connection.set(false));
  screen.getByText(/What you see is from before/);
  expect(asked).not.toHaveBeenCalled();
  act(() => connection.set(true));
  expect(asked).toHaveBeenCalledTimes(1);
  expect(screen.queryByRole("status")).toBeNull();
});
