import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];

/** What the server refused, in words for people. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    sentence: string,
    readonly fields: Record<string, string>,
  ) {
    super(sentence);
  }
}

const client = createClient<paths>({
  baseUrl: globalThis.location.origin,
  // the fetch of the moment, not of when this was loaded
  fetch: (request) => fetch(request),
});

type Listener = () => void;
const listeners = new Set<Listener>();
let reached = true;
const SLOW_MS = 9_000;
/** Requests without an answer yet, each with the timer that finds it slow. */
const waiting = new Map<Request, ReturnType<typeof setTimeout>>();
const slow = new Set<Request>();

function tell(): void {
  listeners.forEach((listener) => listener());
}

function asked(request: Request): void {
  const late = () => {
    slow.add(request);
    tell();
  };
  waiting.set(request, setTimeout(late, SLOW_MS));
}

function answered(request: Request): void {
  clearTimeout(waiting.get(request));
  waiting.delete(request);
  if (slow.delete(request)) tell();
}

/** Whether the server answered last; the browser's own knowledge of a network is no proof. */
export const connection = {
  isThere: () => reached,
  /** Whether somebody waits for an answer longer than an answer takes. */
  isSlow: () => slow.size > 0,
  subscribe(listener: Listener): Listener {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  set(now: boolean): void {
    if (now === reached) return;
    reached = now;
    tell();
  },
};

client.use({
  onResponse({ request }) {
    answered(request);
    connection.set(true);
  },
  onError({ request, error }) {
    answered(request);
    if (error instanceof DOMException && error.name === "AbortError") return undefined;
    connection.set(false);
    return new Refused(
      0,
      "offline",
      request.method === "GET"
        ? "The server cannot be reached. It is tried again."
        : "No answer came, so it is not known here whether this was done. Once the server answers, look at what it shows before you do it again.",
      {},
    );
  },

  onRequest({ request }) {
    const token = document.cookie.match(/(?:^|; )XSRF-TOKEN=([^;]+)/)?.[1];
    if (token && request.method !== "GET") request.headers.set("X-XSRF-TOKEN", decodeURIComponent(token));
    asked(request);
    return request;
  },
});

export const api = client;

/** Unwraps an answer, or throws what was refused; an answer that never came is a refusal, too. */
export async function call<T>(
  answer: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const got = await answer;
  if (got.response.ok) return got.data as T;
  const problem = (got.error ?? {}) as {
    detail?: string;
    code?: string;
    fields?: Record<string, string>;
  };
  throw new Refused(
    got.response.status,
    problem.code ?? "unknown",
    problem.detail ?? `The server answered ${got.response.status}. Try again.`,
    problem.fields ?? {},
  );
}
