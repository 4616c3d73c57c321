import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Figure, Skeleton, Station, Trouble } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { Grid, type Column, type Item } from "../parts/Grid";
import { DueSentence } from "./DueSentence";
import { DueSlip } from "./DueSlip";
import { MakeBatch } from "./MakeBatch";
import { useCriteria, type Account, type Criteria } from "./criteria";

type Row = Schemas["RowView"];

/** See what is due, why the rest is left out, and make a batch of what is taken. */
export function DueStation() {
  const accounts = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
    staleTime: 60_000,
  });
  if (accounts.error) return <Trouble error={accounts.error} />;
  if (!accounts.data) return <Skeleton />;
  if (accounts.data.length === 0)
    return (
      <p className="text-faint p-8">No bank account is set up yet. An administrator adds the first one.</p>
    );
  return <Due accounts={accounts.data} />;
}

function Due({ accounts }: { accounts: Account[] }) {
  const session = useSession();
  const { criteria, group, cursor, change } = useCriteria(session.today, accounts);
  const [selected, setSelected] = useState<Set<string>>(new Set());
  const [making, setMaking] = useState(false);
  const due = useQuery({
    queryKey: ["due", criteria, group],
    queryFn: () => call(api.GET("/api/due", { params: { query: { ...criteria, group } } })),
    placeholderData: keepPreviousData,
  });
  const total = useSelectedTotal(criteria, selected);
  const rows = useMemo(() => {
    const found = new Map<string, Row>();
    due.data?.groups.forEach((g) => g.rows.forEach((row) => found.set(String(row.invoice), row)));
    return found;
  }, [due.data]);
  const items = useMemo<Item<Row>[]>(
    () =>
      due.data?.groups.flatMap((g) => [
        { key: `group-${g.key}`, heading: <Heading group={g} /> },
        ...g.rows.map((row) => ({ key: String(row.invoice), row })),
      ]) ?? [],
    [due.data],
  );
  const toggle = (keys: string[], at: string) => {
    const take = !rows.get(at)?.taken;
    const out = new Set(criteria.out);
    const add = new Set(criteria.add);
    for (const key of keys) {
      if (!rows.get(key)?.movable) continue;
      if (take) out.delete(Number(key));
      else if (!add.delete(Number(key))) out.add(Number(key));
    }
    change({ out: [...out].join("."), add: [...add].join(".") });
  };
  const columns: Column<Row>[] = [
    {
      title: "",
      width: "18px",
      cell: (row) => <Taken row={row} onToggle={() => toggle([String(row.invoice)], String(row.invoice))} />,
    },
    { title: "Vendor", width: "minmax(140px,1fr)", cell: (row) => row.vendorName },
    {
      title: "Their reference",
      width: "104px",
      cell: (row) => <span className="font-mono text-[13px]">{row.reference}</span>,
    },
    {
      title: "Due",
      width: "80px",
      cell: (row) => <span className={row.late ? "text-rust" : ""}>{row.due}</span>,
    },
    { title: "Discount, or why left out", width: "minmax(164px,0.5fr)", cell: (row) => <Note row={row} /> },
    {
      title: "Open",
      width: "100px",
      right: true,
      cell: (row) => (row.currency === due.data?.currency ? row.open : `${row.currency} ${row.open}`),
    },
    { title: "To pay", width: "88px", right: true, cell: (row) => row.toPay ?? "–" },
  ];
  const leftOut = due.data?.leftOut ?? [];
  return (
    <Station
      title="Due"
      sentence={
        <DueSentence
          accounts={accounts}
          criteria={criteria}
          group={group}
          today={session.today}
          change={change}
        />
      }
      answer={
        due.error ? (
          <span role="alert" className="text-rust">
            {due.error.message}
          </span>
        ) : (
          due.data && (
            <>
              <Figure value={due.data.count}>
                {due.data.count === 1 ? "invoice" : "invoices"} taken,{" "}
                <b className="text-ink">{due.data.claims}</b> {due.data.claims === 1 ? "claim" : "claims"}
              </Figure>
              <Figure value={due.data.toPay}>to pay</Figure>
              <Figure value={due.data.saved}>saved by discounts</Figure>
              {leftOut.length > 0 && (
                <span className="text-brass">
                  <b>{leftOut.reduce((n, reason) => n + reason.count, 0)}</b> left out:{" "}
                  {leftOut.map((reason) => `${reason.count} ${reason.words}`).join(", ")}
                </span>
              )}
            </>
          )
        )
      }
      list={
        due.isPending ? (
          <Skeleton />
        ) : (
          <Grid
            label="Invoices due"
            items={items}
            columns={columns}
            cursor={cursor}
            onCursor={(key) => change({ at: key })}
            selected={selected}
            onSelect={setSelected}
            onSpace={toggle}
            dim={(row) => !row.taken}
            empty="Nothing open is due by this day. Choose a later day in the sentence above."
          />
        )
      }
      bar={
        <>
          <span aria-live="polite">
            <b>{due.data?.count ?? 0}</b> taken, <b>{due.data?.toPay ?? "–"}</b>
          </span>
          {!total && due.data && (
            <span className="text-faint">
              {due.data.listed} listed, open{" "}
              {due.data.open.map((m) => `${m.text} ${m.currency}`).join(" and ")}
            </span>
          )}
          {total && (
            <span className="text-faint">
              {total.count} selected, open {total.open.map((m) => `${m.text} ${m.currency}`).join(" and ")},
              to pay {total.toPay}
            </span>
          )}
          <span className="text-faint ml-auto text-[13px]">
            <span className="max-[1500px]:hidden">Space takes or leaves · ? keys</span>
          </span>
          <Button
            look="deed"
            disabled={!due.data || due.data.count === 0 || !session.roles.includes("CLERK")}
            onClick={() => setMaking(true)}
          >
            Make the batch of {due.data?.count ?? 0}
          </Button>
          {due.data && (
            <MakeBatch
              key={String(making)}
              open={making}
              onClose={() => setMaking(false)}
              criteria={criteria}
              count={due.data.count}
              toPay={due.data.toPay}
              currency={due.data.currency}
            />
          )}
        </>
      }
      slip={<DueSlip criteria={criteria} invoice={cursor && rows.has(cursor) ? Number(cursor) : undefined} />}
    />
  );
}

function useSelectedTotal(criteria: Criteria, selected: Set<string>) {
  const ids = [...selected].map(Number);
  const total = useQuery({
    queryKey: ["due-total", criteria, ids],
    enabled: ids.length > 1,
    queryFn: () => call(api.GET("/api/due/total", { params: { query: { ...criteria, selected: ids } } })),
    placeholderData: keepPreviousData,
  });
  return ids.length > 1 ? total.data : undefined;
}

function Heading({ group }: { group: Schemas["GroupView"] }) {
  return (
    <div className="grid grid-cols-[1fr_auto_88px] gap-x-3">
      <span className="truncate">
        <b>{group.title}</b> <span className="text-faint ml-1 text-[13px]">{group.detail}</span>
      </span>
      <b className="text-right">
        {group.open.map((m, i) => (i === 0 ? m.text : ` + ${m.text} ${m.currency}`)).join("")}
      </b>
      <b className="text-right">{group.toPay}</b>
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
      className={`flex h-[18px] w-[18px] items-center justify-center border ${row.movable ? "border-ink cursor-pointer" : "border-hair"}`}
    >
      {row.taken && <span className="bg-ink h-2.5 w-2.5" />}
    </span>
  );
}

function Note({ row }: { row: Row }) {
  const look =
    row.noteKind === "discount"
      ? "text-greentext"
      : row.noteKind === "left-out"
        ? "text-brass"
        : "text-faint";
  return (
    <span className={`text-[13px] ${look}`} title={row.note}>
      {row.note}
    </span>
  );
}
