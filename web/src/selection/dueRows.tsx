import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, call, type Schemas } from "../api/client";
import type { Column } from "../parts/Grid";
import { writeRanges } from "../parts/ranges";
import type { HowListed, Question } from "./criteria";
import type { DueView, Row } from "./useDueList";

export function useSelectedTotal(question: Question, how: HowListed, selected: Set<string>, listed: number) {
  const ranges = useMemo(
    () => (selected.size === listed ? "all" : writeRanges([...selected].map(Number))),
    [selected, listed],
  );
  const total = useQuery({
    queryKey: ["due-total", question, how, ranges],
    // a choice too long for an address is counted, not summed
    enabled: selected.size > 1 && ranges.length < 30_000,
    queryFn: () =>
      call(api.GET("/api/due/total", { params: { query: { ...question, ...how, selected: ranges } } })),
    placeholderData: keepPreviousData,
  });
  return selected.size > 1 ? total.data : undefined;
}

/** The selected rows as the server writes them, whether they are here or not. */
export function selectedCsv(question: Question, how: HowListed, keys: string[]): Promise<string> {
  const selected = writeRanges(keys.map(Number));
  return call(
    api.GET("/api/due/csv", { params: { query: { ...question, ...how, selected } }, parseAs: "text" }),
  ) as Promise<string>;
}

export function useColumns(currency: string | undefined, onToggle: (row: Row) => void): Column<Row>[] {
  return [
    {
      key: "taken",
      title: "Taken",
      quiet: true,
      width: "24px",
      cell: (row) => <Taken row={row} onToggle={() => onToggle(row)} />,
    },
    {
      key: "VENDOR",
      sorts: true,
      title: "Vendor",
      width: "minmax(140px,1fr)",
      cell: (row) => row.vendorName,
    },
    {
      key: "REFERENCE",
      sorts: true,
      title: "Their reference",
      width: "104px",
      cell: (row) => <span className="font-mono text-note">{row.reference}</span>,
    },
    {
      key: "DUE",
      sorts: true,
      title: "Due",
      width: "80px",
      cell: (row) => <span className={row.late ? "text-rust" : ""}>{row.due}</span>,
    },
    {
      key: "NOTE",
      sorts: true,
      title: "Discount, or why left out",
      width: "minmax(164px,0.5fr)",
      words: (row) => row.note,
      cell: (row) => <Note row={row} />,
    },
    {
      key: "OPEN",
      sorts: true,
      title: "Open",
      width: "100px",
      right: true,
      cell: (row) => (row.currency === currency ? row.open : `${row.currency} ${row.open}`),
    },
    {
      key: "TO_PAY",
      sorts: true,
      title: "To pay",
      width: "88px",
      right: true,
      cell: (row) => row.toPay ?? "–",
    },
  ];
}

export function Heading({ group, currency }: { group: Schemas["GroupView"]; currency: string }) {
  return (
    <div className="grid grid-cols-[1fr_auto_88px] gap-x-3">
      <span className="truncate">
        <b>{group.title}</b> <span className="text-faint ml-1 text-note">{group.detail}</span>
      </span>
      <b className="text-right">
        {group.open.map((m) => (m.currency === currency ? m.text : `${m.text} ${m.currency}`)).join(" + ")}
      </b>
      <b className="text-right">{group.toPay}</b>
    </div>
  );
}

/** Where the cash limit ran out. */
export function CashLine({ view }: { view: DueView }) {
  return (
    <div data-cash-line className="border-harbour text-harbour flex gap-2 border-b-4 border-double">
      <b>Cash line</b>
      <span>
        {view.toPay} of {view.limit} spent, {view.left} left; + takes the claim under the cursor in, − leaves
        it
      </span>
    </div>
  );
}

function Taken({ row, onToggle }: { row: Row; onToggle: () => void }) {
  return (
    <span
      role="checkbox"
      aria-checked={row.taken}
      aria-disabled={!row.movable}
      aria-label={`${row.vendorName} ${row.reference} taken`}
      onClick={(event) => {
        event.stopPropagation();
        if (row.movable) onToggle();
      }}
      className={`flex h-6 w-6 items-center justify-center ${row.movable ? "cursor-pointer" : ""}`}
    >
      <span
        className={`flex h-[18px] w-[18px] items-center justify-center border ${row.movable ? "border-ink" : "border-hair"}`}
      >
        {row.taken && <span className="bg-ink h-2.5 w-2.5" />}
      </span>
    </span>
  );
}

function Note({ row }: { row: Row }) {
  const look =
    row.noteKind === "discount"
      ? "text-greentext"
      : row.noteKind === "left-out"
        ? "text-brass"
        : row.noteKind === "hand"
          ? "text-harbour"
          : "text-faint";
  return (
    <span className={`text-note ${look}`} title={row.wayOut ? `${row.note}. ${row.wayOut}` : row.note}>
      {row.note}
    </span>
  );
}
