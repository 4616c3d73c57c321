import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render as rendered, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState, type ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeAll, describe, expect, it, vi } from "vitest";
import { api } from "../api/client";
import { Grid, type Item, type Rows } from "./Grid";
import { setSingleKeys } from "./singleKeys";

interface Row {
  name: string;
}

const HEIGHT = 310;
const kept = vi.fn();

/** A list before somebody for whom nothing, or this, is kept. */
function render(list: ReactNode, arranged: Record<string, unknown> = {}) {
  vi.spyOn(api, "GET").mockResolvedValue({ data: arranged, response: new Response() } as never);
  vi.spyOn(api, "POST").mockImplementation(((_: string, asked: { body: unknown }) => {
    kept(asked.body);
    return Promise.resolve({ response: new Response() });
  }) as never);
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  queries.setQueryData(["kept-lists"], arranged);
  rendered(
    <QueryClientProvider client={queries}>
      <MemoryRouter>{list}</MemoryRouter>
    </QueryClientProvider>,
  );
}

const spaced = vi.fn();
const entered = vi.fn();
const typed = vi.fn();

function items(rows: number): Item<Row>[] {
  return [
    { key: "head", heading: "Late" },
    ...Array.from({ length: rows }, (_, i) => ({ key: `r${i}`, row: { name: `row ${i}` } })),
  ];
}

function List({ rows }: { rows: number }) {
  const [cursor, setCursor] = useState<string>();
  const [selected, setSelected] = useState(new Set<string>());
  return (
    <>
      <Grid
        list="rows"
        label="rows"
        items={items(rows)}
        columns={[{ key: "name", title: "Name", width: "1fr", cell: (row) => row.name }]}
        cursor={cursor}
        onCursor={setCursor}
        selected={selected}
        onSelect={setSelected}
        onSpace={spaced}
        onEnter={entered}
        onDigit={typed}
        empty="nothing here"
      />
      <output aria-label="cursor">{cursor}</output>
      <output aria-label="selected">{[...selected].join(" ")}</output>
    </>
  );
}

const cursor = () => screen.getByLabelText("cursor").textContent;
const selected = () => screen.getByLabelText("selected").textContent;

/** The list with the focus in it, its cursor on the first row. */
async function focused(rows: number) {
  render(<List rows={rows} />);
  const user = userEvent.setup();
  await user.tab();
  return user;
}

describe("Grid", () => {
  beforeAll(() => {
    // jsdom lays nothing out; the virtual list needs a height and an observer
    class NoObserver {
      observe() {}
      unobserve() {}
      disconnect() {}
    }
    Object.assign(document.defaultView!, { ResizeObserver: NoObserver });
    for (const [name, size] of [
      ["clientHeight", HEIGHT],
      ["clientWidth", 800],
    ] as const)
      Object.defineProperty(HTMLElement.prototype, name, { configurable: true, get: () => size });
    HTMLElement.prototype.scrollTo = () => undefined;
  });
  afterEach(() => {
    cleanup();
    vi.clearAllMocks();
  });

  it("is one tab stop that starts on the first row, past headings", async () => {
    await focused(5);
    expect(screen.getByRole("grid", { name: "rows" })).toBe(document.activeElement);
    expect(cursor()).toBe("r0");
    expect(screen.getByRole("grid").getAttribute("aria-activedescendant")).toBe(
      screen.getByText("row 0").closest("[role=row]")!.id,
    );
  });

  it("moves by arrows, stops at both ends, jumps by Home and End", async () => {
    const user = await focused(4);
    await user.keyboard("{ArrowUp}");
    expect(cursor()).toBe("r0");
    await user.keyboard("{ArrowDown}{ArrowDown}");
    expect(cursor()).toBe("r2");
    await user.keyboard("{End}{ArrowDown}");
    expect(cursor()).toBe("r3");
    await user.keyboard("{Home}");
    expect(cursor()).toBe("r0");
  });

  it("selects ranges by Shift, all by Ctrl A, and lets go by Escape", async () => {
    const user = await focused(5);
    await user.keyboard("{ArrowDown}{Shift>}{ArrowDown}{ArrowDown}{/Shift}");
    expect(selected()).toBe("r1 r2 r3");
    await user.keyboard("{Escape}");
    expect(selected()).toBe("");
    await user.keyboard("{Control>}a{/Control}");
    expect(selected()).toBe("r0 r1 r2 r3 r4");
  });

  it("Space acts on all selected rows when the cursor is one of them, else on the cursor's", async () => {
    const user = await focused(5);
    await user.keyboard(" ");
    expect(spaced).toHaveBeenLastCalledWith(["r0"], "r0");
    await user.keyboard("{Shift>}{ArrowDown}{/Shift} ");
    expect(spaced).toHaveBeenLastCalledWith(["r0", "r1"], "r1");
    await user.keyboard("{ArrowDown} ");
    expect(spaced).toHaveBeenLastCalledWith(["r2"], "r2");
  });

  it("Enter opens, a digit starts an amount, Ctrl with a digit does not", async () => {
    const user = await focused(3);
    await user.keyboard("{Enter}");
    expect(entered).toHaveBeenCalledWith("r0");
    await user.keyboard("7");
    expect(typed).toHaveBeenCalledWith("r0", "7");
    typed.mockClear();
    await user.keyboard("{Control>}7{/Control}");
    expect(typed).not.toHaveBeenCalled();
  });

  it("has headings that are read as such, with the rows they belong to", () => {
    render(<List rows={3} />);
    const rows = screen.getAllByRole("row");
    expect(within(rows[0]!).getAllByRole("columnheader")).not.toHaveLength(0);
    expect(rows[0]!.getAttribute("aria-rowindex")).toBe("1");
    expect(rows[1]!.getAttribute("aria-rowindex")).toBe("2");
    expect(rows[0]!.closest("[role=grid]")).toBe(rows[1]!.closest("[role=grid]"));
  });

  it("draws only what is seen of many rows, and always the cursor's", async () => {
    const user = await focused(5_000);
    expect(screen.getAllByRole("row").length).toBeLessThan(60);
    await user.keyboard("{End}");
    expect(cursor()).toBe("r4999");
    expect(screen.getByText("row 4999")).toBeTruthy();
    expect(screen.getByRole("grid").getAttribute("aria-rowcount")).toBe("5002");
  });

  it("selects by click, adds by Ctrl, and ranges by Shift", async () => {
    render(<List rows={6} />);
    const user = userEvent.setup();
    await user.click(screen.getByText("row 1"));
    expect(selected()).toBe("r1");
    await user.keyboard("{Control>}");
    await user.click(screen.getByText("row 4"));
    await user.keyboard("{/Control}");
    expect(selected()).toBe("r1 r4");
    await user.keyboard("{Shift>}");
    await user.click(screen.getByText("row 5"));
    await user.keyboard("{/Shift}");
    expect(selected()).toBe("r4 r5");
  });

  it("says what will appear when there is nothing", () => {
    render(<List rows={0} />);
    cleanup();
    render(
      <Grid
        list="rows"
        label="none"
        items={[]}
        columns={[]}
        cursor={undefined}
        onCursor={() => undefined}
        empty="nothing here"
      />,
    );
    expect(screen.getByText("nothing here")).toBeTruthy();
    expect(screen.queryByRole("grid")).toBeNull();
  });
});

describe("Grid over rows that are on their way", () => {
  const asked = vi.fn();
  const commanded = vi.fn();

  function Sparse({ known }: { known: number }) {
    const [cursor, setCursor] = useState<string>();
    const rows: Rows<Row> = {
      length: 100_000,
      isRow: () => true,
      key: (i) => `r${i}`,
      indexOf: (key) => Number(key.slice(1)),
      at: (i) => (i < known ? { key: `r${i}`, row: { name: `row ${i}` } } : undefined),
    };
    return (
      <>
        <Grid
          list="rows"
          label="rows"
          items={rows}
          columns={[{ key: "name", title: "Name", width: "1fr", cell: (row) => row.name }]}
          cursor={cursor}
          onCursor={setCursor}
          onKey={commanded}
          onRange={asked}
          empty="nothing here"
        />
        <output aria-label="cursor">{cursor}</output>
      </>
    );
  }

  afterEach(() => {
    cleanup();
    setSingleKeys(true);
    vi.clearAllMocks();
  });

  it("draws what is here, says what it needs, and counts all", () => {
    render(<Sparse known={3} />);
    expect(screen.getAllByRole("row")).toHaveLength(4);
    expect(screen.getByRole("grid").getAttribute("aria-rowcount")).toBe("100001");
    expect(asked).toHaveBeenCalled();
  });

  it("goes to the end without the rows between", async () => {
    render(<Sparse known={3} />);
    const user = userEvent.setup();
    await user.tab();
    await user.keyboard("{End}");
    expect(screen.getByLabelText("cursor").textContent).toBe("r99999");
  });

  it("hands single keys over, unless they are switched off", async () => {
    render(<Sparse known={3} />);
    const user = userEvent.setup();
    await user.tab();
    await user.keyboard("+s");
    expect(commanded.mock.calls).toEqual([
      ["+", "r0"],
      ["s", "r0"],
    ]);
    setSingleKeys(false);
    await user.keyboard("s");
    expect(commanded).toHaveBeenCalledTimes(2);
  });
});
