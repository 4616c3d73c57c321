import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api, call, connection, Refused } from "./client";

const fetched = vi.fn<typeof fetch>();

const answer = (status: number, error?: unknown) =>
  Promise.resolve({
    data: { id: 1 },
    error,
    response: new Response(null, { status: status === 200 ? 200 : status }),
  });

describe("call", () => {
  beforeEach(() => void vi.stubGlobal("fetch", fetched));
  afterEach(() => void vi.unstubAllGlobals());

  it("unwraps what came", async () => {
    expect(await call(answer(200))).toEqual({ id: 1 });
  });

  it("turns a problem into its sentence, code and fields", async () => {
    const refused = await call(
      answer(422, {
        detail: "January 2026 is locked.",
        code: "period-locked",
        fields: { ledgerDate: "locked" },
      }),
    ).catch((error: unknown) => error as Refused);
    expect(refused).toBeInstanceOf(Refused);
    expect(refused).toMatchObject({
      status: 422,
      code: "period-locked",
      message: "January 2026 is locked.",
      fields: { ledgerDate: "locked" },
    });
  });

  it("says so when there is no sentence", async () => {
    await expect(call(answer(502))).rejects.toThrow("The server answered 502");
  });

  it("says when an answer takes long, until it is here", async () => {
    vi.useFakeTimers();
    let answered: (response: Response) => void = () => undefined;
    fetched.mockReturnValue(new Promise((resolve) => (answered = resolve)));
    const asking = call(api.GET("/api/session"));
    await vi.advanceTimersByTimeAsync(8_000);
    expect(connection.isSlow()).toBe(false);
    await vi.advanceTimersByTimeAsync(1_500);
    expect(connection.isSlow()).toBe(true);
    answered(Response.json({ name: "Ines" }));
    await asking;
    expect(connection.isSlow()).toBe(false);
    vi.useRealTimers();
  });

  it("does not know what became of an edit whose answer was lost, and says so until one comes", async () => {
    fetched.mockRejectedValue(new TypeError("failed to fetch"));
    const post = call(api.POST("/api/batches/{id}/post", { params: { path: { id: 1 } } }));
    await expect(post).rejects.toThrow("it is not known here whether this was done");
    await expect(call(api.GET("/api/session"))).rejects.toThrow("It is tried again");
    expect(connection.isThere()).toBe(false);
    fetched.mockResolvedValue(Response.json({ name: "Ines" }));
    await call(api.GET("/api/session"));
    expect(connection.isThere()).toBe(true);
  });
});
