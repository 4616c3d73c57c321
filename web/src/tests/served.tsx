import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { configure, render } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactNode } from "react";
import { MemoryRouter, Route, Routes, useLocation } from "react-router";
import { vi } from "vitest";
import { api, type Schemas } from "../api/client";
import { SessionContext } from "../frame/session";

// the first screen of a file takes long where other work goes on beside it
configure({ asyncUtilTimeout: 8_000 });

/** For tests of screens: answers by path, `{id}` as in the description of the API; what is missing fails the test. */
export type Answers = Record<string, unknown>;

export interface Sent {
  path: string;
  body: unknown;
}

type Asked = { params?: { path?: Record<string, unknown> }; body?: unknown };

const nothingArranged = { data: {}, response: new Response(null, { status: 200 }) };

/** Puts a screen before somebody, with a server that answers from a table and keeps what it was sent. */
export function serve(
  screen: ReactNode,
  {
    path = "/",
    at = path,
    roles = ["CLERK"],
    answers,
  }: { path?: string; at?: string; roles?: string[]; answers: Answers },
) {
  const sent: Sent[] = [];
  const answer = (key: string, asked: Asked) => {
    if (key === "GET /api/lists" && !(key in answers)) return Promise.resolve(nothingArranged);
    if (!(key in answers)) throw new Error(`nothing answers ${key}`);
    const found = answers[key];
    const data = typeof found === "function" ? (found as (body: unknown) => unknown)(asked.body) : found;
    // one that comes late
    if (data instanceof Promise)
      return data.then((late) => ({ data: late, response: new Response(null, { status: 200 }) }));
    if (data instanceof Problem)
      return Promise.resolve({
        error: { detail: data.sentence, code: data.code, fields: data.fields },
        response: new Response(null, { status: data.status }),
      });
    return Promise.resolve({ data, response: new Response(null, { status: 200 }) });
  };
  vi.spyOn(api, "GET").mockImplementation(((key: string, asked: Asked = {}) =>
    answer(`GET ${key}`, asked)) as never);
  vi.spyOn(api, "POST").mockImplementation(((key: string, asked: Asked = {}) => {
    let real = key;
    for (const [name, value] of Object.entries(asked.params?.path ?? {}))
      real = real.replace(`{${name}}`, String(value));
    sent.push({ path: real, body: asked.body });
    return answer(`POST ${key}`, asked);
  }) as never);
  // a list draws only the rows that are seen
  for (const name of ["clientHeight", "clientWidth", "offsetHeight", "offsetWidth"])
    Object.defineProperty(HTMLElement.prototype, name, { configurable: true, get: () => 1200 });
  window.matchMedia ??= ((query: string) => ({
    matches: false,
    media: query,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as never;
  Element.prototype.scrollTo ??= () => undefined;
  globalThis.ResizeObserver ??= class {
    observe() {}
    unobserve() {}
    disconnect() {}
  } as never;
  const session = {
    personId: 1,
    name: "Somebody",
    roles,
    today: "2026-11-12",
    demo: true,
  } as Schemas["SessionView"];
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={queries}>
      <SessionContext value={session}>
        <MemoryRouter initialEntries={[at]}>
          <Routes>
            <Route path={path} element={screen} />
            <Route path="*" element={<Elsewhere />} />
          </Routes>
        </MemoryRouter>
      </SessionContext>
    </QueryClientProvider>,
  );
  return { sent, user: userEvent.setup() };
}

function Elsewhere() {
  return <output aria-label="went to">{useLocation().pathname}</output>;
}

/** What a server refuses. */
export class Problem {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly sentence: string,
    readonly fields: Record<string, string> = {},
  ) {}
}
