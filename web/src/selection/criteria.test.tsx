import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { describe, expect, it } from "vitest";
import { KEPT_LISTS, type Arrangement } from "../parts/keptLists";
import { addressOf, useCriteria, type Account } from "./criteria";

const account = (id: number): Account => ({
  id,
  name: "Operations",
  bankName: "Skerrow Trust",
  currency: "USD",
  positivePay: true,
  floor: "0.00",
  ways: [{ id: 70, name: "Checks", method: "CHECK", words: "check" }],
});

function criteria(address: string, accounts: Account[], kept: Record<string, Arrangement> = {}) {
  const queries = new QueryClient();
  queries.setQueryData(KEPT_LISTS.queryKey, kept);
  return renderHook(() => useCriteria(accounts), {
    wrapper: ({ children }: { children: ReactNode }) => (
      <QueryClientProvider client={queries}>
        <MemoryRouter initialEntries={[address]}>{children}</MemoryRouter>
      </QueryClientProvider>
    ),
  });
}

describe("the sentence in the address", () => {
  it("leaves the days to the server until somebody chooses one", () => {
    const { result } = criteria("/due", [account(7)]);
    expect(result.current.question).toMatchObject({
      account: 7,
      checkDate: "usual",
      dueBy: "usual",
      nextRun: "usual",
    });
    expect(result.current.question.ledgerDate).toBeUndefined();
    expect(result.current.how).toEqual({ listedBy: "DAY", showing: "ALL", days: undefined });
  });

  it("has the rows sorted as whoever sits here keeps them", () => {
    const kept = { due: { columns: [], folded: [], sortedBy: "OPEN", descending: true } };
    expect(criteria("/due", [account(7)], kept).result.current.how).toMatchObject({
      sortedBy: "OPEN",
      descending: true,
    });
  });

  it("reads every word and lists by the order of cash once there is a limit", () => {
    const { result } = criteria(
      "/due?show=LEFT_OUT&pay=70&check=friday&due=end+of+month&next=none&vendors=3.4&credits=yes&limit=available&priorityFrom=2&out=7-9",
      [account(7)],
    );
    expect(result.current.question).toMatchObject({
      wayToPay: 70,
      checkDate: "friday",
      dueBy: "end of month",
      nextRun: undefined,
      vendors: [3, 4],
      credits: true,
      limit: "available",
      priorityFrom: 2,
      out: "7-9",
    });
    expect(result.current.how).toMatchObject({ listedBy: "CASH", showing: "LEFT_OUT" });
  });

  it("writes a kept sentence back without the marks of the list it came from", () => {
    const { result } = criteria("/due?pay=70&vendors=3&smallest=10&out=7&limit=500", [account(7)]);
    const address = addressOf(result.current.question);
    expect(address).toMatchObject({ pay: "70", vendors: "3", smallest: "10", limit: "500" });
    expect(address.next).toBeUndefined();
    expect(address.out).toBeUndefined();
    act(() => result.current.change(address));
    expect(result.current.question.out).toBeUndefined();
  });
});
