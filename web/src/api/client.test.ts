import { describe, expect, it } from "vitest";
import { call, Refused } from "./client";

const answer = (status: number, error?: unknown) =>
  Promise.resolve({
    data: { id: 1 },
    error,
    response: new Response(null, { status: status === 200 ? 200 : status }),
  });

describe("call", () => {
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

  it("calls a lost connection a refusal that lost nothing", async () => {
    await expect(call(Promise.reject(new TypeError("failed to fetch")))).rejects.toThrow("Nothing was saved");
  });
});
