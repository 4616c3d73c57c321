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

const client = createClient<paths>({ baseUrl: "/" });

client.use({
  onRequest({ request }) {
    const token = document.cookie.match(/(?:^|; )XSRF-TOKEN=([^;]+)/)?.[1];
    if (token && request.method !== "GET") request.headers.set("X-XSRF-TOKEN", decodeURIComponent(token));
    return request;
  },
});

export const api = client;

/** Unwraps an answer, or throws what was refused; a lost connection is a refusal, too. */
export async function call<T>(
  answer: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let got: Awaited<typeof answer>;
  try {
    got = await answer;
  } catch {
    throw new Refused(
      0,
      "offline",
      "The server cannot be reached. Nothing was saved; it is tried again when you repeat it.",
      {},
    );
  }
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
