import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { api } from "../api/client";
import type { HowListed, Question } from "./criteria";
import { useDueList, type DueView, type Row } from "./useDueList";

const LISTED = 250;
const HOW: HowListed = {
  listedBy: "DAY",
  showing: "ALL",
  days: undefined,
  sortedBy: undefined,
  descending: undefined,
};

/** Row `i` of the list that a question asks for; what was marked out is not taken. */
function row(i: number, out: string | undefined): Row {
  return { invoice: 1000 + i, vendorName: "Tern", taken: String(1000 + i) !== out } as Row;
}

function view(out: string | undefined): DueView {
  return {
    listed: LISTED,
    order: Array.from({ length: LISTED }, (_, i) => 1000 + i),
    groups: [{ key: "all", title: "", detail: "", first: 0, count: LISTED }],
    rows: Array.from({ length: 100 }, (_, i) => row(i, out)),
    count: out ? LISTED - 1 : LISTED,
  } as unknown as DueView;
}

type Query = Question & { from?: number };
interface Call {
  path: string;
  query: Query;
  signal: AbortSignal;
  answer: () => void;
}

function listing() {
  const calls: Call[] = [];
  vi.spyOn(api, "GET").mockImplementation(((
    path: string,
    { params, signal }: { params: { query: Query }; signal: AbortSignal },
  ) => {
    const { out, from = 0 } = params.query;
    const data =
      path === "/api/due"
        ? view(out ?? undefined)
        : Array.from({ length: Math.min(100, LISTED - from) }, (_, i) => row(from + i, out ?? undefined));
    return new Promise((resolve) =>
      calls.push({
        path,
        query: params.query,
        signal,
        answer: () => resolve({ data, response: new Response(null, { status: 200 }) }),
      }),
    );
  }) as never);
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const heading = () => null;
  const hook = renderHook(
    ({ out }: { out?: string }) => useDueList({ account: 7, out } as Question, HOW, heading, heading),
    {
      initialProps: {},
      wrapper: ({ children }: { children: ReactNode }) => (
        <QueryClientProvider client={queries}>{children}</QueryClientProvider>
      ),
    },
  );
  const find = (path: string, out: string | undefined, from?: number) =>
    calls.filter((c) => c.path === path && c.query.out === out && c.query.from === from).at(-1);
  const called = async (path: string, out: string | undefined, from?: number) => {
    await waitFor(() => expect(find(path, out, from)).toBeDefined());
    return find(path, out, from)!;
  };
  const answer = async (call: Call) => act(async () => call.answer());
  const seen = (place: number) => {
    const item = hook.result.current.items.at(place + 1);
    return item && "row" in item ? item.row : undefined;
  };
  return { hook, called, answer, seen };
}

describe("the list of what is due", () => {
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("keeps every row on screen when one past the first hundred is taken out", async () => {
    const { hook, called, answer, seen } = listing();
    await answer(await called("/api/due", undefined));
    await waitFor(() => expect(hook.result.current.items.length).toBe(LISTED + 1));
    act(() => hook.result.current.onRange(140, 155));
    await answer(await called("/api/due/rows", undefined, 100));
    await waitFor(() => expect(seen(150)).toMatchObject({ invoice: 1150, taken: true }));
    hook.rerender({ out: "1150" });
    expect(seen(150)).toMatchObject({ invoice: 1150, taken: true });
    await answer(await called("/api/due", "1150"));
    expect(seen(150)).toMatchObject({ invoice: 1150 });
    await answer(await called("/api/due/rows", "1150", 100));
    await waitFor(() => expect(seen(150)).toMatchObject({ invoice: 1150, taken: false }));
    expect(seen(149)).toMatchObject({ invoice: 1149, taken: true });
  });

  it("lets no late page of the old list into the new one, and aborts it", async () => {
    const { hook, called, answer, seen } = listing();
    await answer(await called("/api/due", undefined));
    await waitFor(() => expect(hook.result.current.items.length).toBe(LISTED + 1));
    act(() => hook.result.current.onRange(140, 155));
    const slow = await called("/api/due/rows", undefined, 100);
    hook.rerender({ out: "1150" });
    await answer(await called("/api/due", "1150"));
    await answer(await called("/api/due/rows", "1150", 100));
    expect(slow.signal.aborted).toBe(true);
    await answer(slow);
    await waitFor(() => expect(seen(150)).toMatchObject({ taken: false }));
  });
});
