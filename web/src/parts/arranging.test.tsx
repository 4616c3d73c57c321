import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "../api/client";
import { csvOf } from "./columns";
import { Grid, type Column, type Item } from "./Grid";
import type { Arrangement } from "./keptLists";

interface Bill {
  payee: string;
  day: string;
  amount: string;
}

const COLUMNS: Column<Bill>[] = [
  { key: "payee", title: "Payee", width: "1fr", cell: (one) => <b>{one.payee}</b> },
  {
    key: "day",
    title: "Day",
    width: "90px",
    value: (one) => one.day,
    cell: (one) => `day ${one.day.slice(8)}`,
  },
  { key: "amount", title: "Amount", width: "90px", right: true, cell: (one) => one.amount },
];
const BILLS: Item<Bill>[] = [
  { key: "late", heading: "Late" },
  { key: "1", row: { payee: "Tern", day: "2026-11-09", amount: "1,000.00" } },
  { key: "2", row: { payee: "Gannet", day: "2026-10-30", amount: "90.00" } },
  { key: "soon", heading: "Soon" },
  { key: "3", row: { payee: "Oakum", day: "2026-11-20", amount: "-5.00" } },
  { key: "4", row: { payee: "=Ebb", day: "2026-11-21", amount: "" } },
];

const kept = vi.fn();

function show(arranged: Partial<Arrangement> = {}, columns = COLUMNS, onEnd?: () => void) {
  vi.spyOn(api, "POST").mockImplementation(((path: string, asked: { body: unknown }) => {
    kept(path, asked.body);
    return Promise.resolve({ response: new Response() });
  }) as never);
  const queries = new QueryClient();
  queries.setQueryData(["kept-lists"], {
    bills: { columns: [], descending: false, folded: [], ...arranged },
  });
  const user = userEvent.setup();
  render(
    <QueryClientProvider client={queries}>
      <MemoryRouter>
        <Grid
          list="bills"
          label="Bills"
          items={BILLS}
          columns={columns}
          cursor="1"
          onCursor={cursor}
          onEnd={onEnd}
          empty="none"
        />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return user;
}

const cursor = vi.fn();
const heads = () => screen.getAllByRole("columnheader").map((one) => one.textContent);
const rows = () =>
  screen
    .getAllByRole("row")
    .slice(1)
    .map((row) => row.textContent);
const menu = async (user: ReturnType<typeof userEvent.setup>) => {
  await user.click(screen.getByRole("button", { name: "Arrange this list: Bills" }));
  return screen.getByRole("dialog");
};

describe("a list that somebody arranges", () => {
  beforeEach(() => {
    globalThis.ResizeObserver ??= class {
      observe() {}
      unobserve() {}
      disconnect() {}
    } as never;
    for (const name of ["clientHeight", "clientWidth", "offsetHeight", "offsetWidth"])
      Object.defineProperty(HTMLElement.prototype, name, { configurable: true, get: () => 600 });
    HTMLElement.prototype.scrollTo = () => undefined;
  });
  afterEach(async () => {
    // what is kept on leaving is sent before the next test hears it
    cleanup();
    await new Promise((resolve) => setTimeout(resolve));
    vi.restoreAllMocks();
    kept.mockClear();
    cursor.mockClear();
  });

  it("sorts figures by their size within the groups, up, down, and as it comes", async () => {
    const user = show();
    await user.click(screen.getByRole("button", { name: "Amount" }));
    expect(rows()).toEqual([
      "▾Late",
      "Gannetday 3090.00",
      "Ternday 091,000.00",
      "▾Soon",
      "Oakumday 20-5.00",
      "=Ebbday 21",
    ]);
    expect(screen.getAllByRole("columnheader")[2]!.getAttribute("aria-sort")).toBe("ascending");
    await user.click(screen.getByRole("button", { name: "Amount" }));
    expect(rows()[1]).toBe("Ternday 091,000.00");
    // what says nothing stays last
    expect(rows()[5]).toBe("=Ebbday 21");
    await user.click(screen.getByRole("button", { name: "Amount" }));
    expect(rows()[1]).toBe("Ternday 091,000.00");
    expect(screen.getAllByRole("columnheader")[2]!.getAttribute("aria-sort")).toBeNull();
  });

  it("sorts days as days, not by their words", async () => {
    const user = show();
    await user.click(screen.getByRole("button", { name: "Day" }));
    expect(rows().slice(0, 3)).toEqual(["▾Late", "Gannetday 3090.00", "Ternday 091,000.00"]);
  });

  it("keeps columns, order and widths for the person, once it rests", async () => {
    const user = show();
    const arrange = await menu(user);
    await user.click(within(arrange).getByRole("checkbox", { name: "Day" }));
    await user.click(within(arrange).getByRole("button", { name: "Amount earlier" }));
    await user.click(within(arrange).getByRole("button", { name: "Amount earlier" }));
    await user.click(within(arrange).getByRole("button", { name: "Payee wider" }));
    await waitFor(() => expect(kept).toHaveBeenCalledTimes(1));
    expect(kept.mock.calls[0]).toEqual([
      "/api/lists/{list}",
      {
        columns: [
          { key: "amount", hidden: false },
          { key: "payee", hidden: false, width: 616 },
          { key: "day", hidden: true },
        ],
        descending: false,
        folded: [],
      },
    ]);
    await user.keyboard("{Escape}");
    expect(heads()).toEqual(["Amount", "Payee"]);
  });

  it("never hides the last column", async () => {
    const user = show({
      columns: [
        { key: "payee", hidden: false },
        { key: "day", hidden: true },
        { key: "amount", hidden: true },
      ],
    });
    const arrange = await menu(user);
    await user.click(within(arrange).getByRole("checkbox", { name: "Payee" }));
    await user.keyboard("{Escape}");
    expect(heads()).toEqual(["Payee"]);
  });

  it("shows a column that came after what was kept", () => {
    show({ columns: [{ key: "amount", hidden: false }] });
    expect(heads()).toEqual(["Amount", "Payee", "Day"]);
  });

  it("folds the group of the cursor to the left and unfolds it to the right", async () => {
    const user = show();
    screen.getByRole("grid").focus();
    await user.keyboard("{ArrowLeft}");
    expect(rows()).toEqual(["▸Late", "▾Soon", "Oakumday 20-5.00", "=Ebbday 21"]);
    await user.keyboard("{ArrowDown}");
    expect(cursor).toHaveBeenLastCalledWith("3");
    await user.keyboard("{ArrowUp}{ArrowRight}");
    expect(rows()).toHaveLength(6);
    await waitFor(() =>
      expect(kept).toHaveBeenLastCalledWith("/api/lists/{list}", expect.objectContaining({ folded: [] })),
    );
  });

  it("narrows to the rows that hold some words, says so, and shows all again", async () => {
    const user = show();
    const arrange = await menu(user);
    await user.type(within(arrange).getByRole("textbox"), "GANN");
    await user.keyboard("{Escape}");
    expect(rows()).toEqual(["▾Late", "Gannetday 3090.00"]);
    expect(screen.getByText(/Only rows that hold/).textContent).toContain("1 of 4");
    await user.click(screen.getByRole("button", { name: "Show all" }));
    expect(rows()).toHaveLength(6);
  });

  it("lets a list of which only a part is here be sorted by the server alone", async () => {
    const user = show({}, [{ ...COLUMNS[0]!, sorts: true }, COLUMNS[1]!]);
    expect(rows()).toHaveLength(6);
    await user.click(screen.getByRole("button", { name: "Payee" }));
    expect(rows()[1]).toBe("Gannetday 30");
  });

  it("prints every row, the folded ones too, and takes the table away afterwards", async () => {
    const print = vi.fn(() => {
      expect(screen.getByRole("table").textContent).toContain("Gannet");
      window.dispatchEvent(new Event("afterprint"));
    });
    vi.stubGlobal("print", print);
    const user = show({ folded: ["late"] });
    expect(rows()).toHaveLength(4);
    const arrange = await menu(user);
    await user.click(within(arrange).getByRole("button", { name: "Print the whole list" }));
    await waitFor(() => expect(print).toHaveBeenCalled());
    await waitFor(() => expect(screen.queryByRole("table")).toBeNull());
  });

  it("says on paper when only a part of the list is there, as the browser's own command prints it", async () => {
    show({}, COLUMNS, () => undefined);
    act(() => void window.dispatchEvent(new Event("beforeprint")));
    expect(screen.getByRole("table").textContent).toContain("Only the 6 rows that were on the screen so far");
    act(() => void window.dispatchEvent(new Event("afterprint")));
    cleanup();
    show();
    act(() => void window.dispatchEvent(new Event("beforeprint")));
    expect(screen.getByRole("table").textContent).not.toContain("Only the");
  });

  it("writes CSV that no spreadsheet runs", () => {
    const bills = BILLS.flatMap((item) => ("row" in item ? [item.row] : []));
    expect(csvOf(COLUMNS, bills).split("\r\n")).toEqual([
      "Payee,Day,Amount",
      'Tern,day 09,"1,000.00"',
      "Gannet,day 30,90.00",
      "Oakum,day 20,-5.00",
      "'=Ebb,day 21,",
    ]);
  });
});
