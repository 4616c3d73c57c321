import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { longDate, shortDate } from "../parts/dates";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { writeRanges } from "../parts/ranges";
import { ChoiceWord, DayWord } from "../parts/Word";
import { AdvicePart } from "../mail/AdvicePart";
import { UndoPart } from "../voiding/UndoPart";
import { Amount } from "../workline/Amount";

type Row = Schemas["ListedOutside"];

const COLUMNS: Column<Row>[] = [
  {
    key: "paid-on",
    title: "Paid on",
    width: "96px",
    value: (row) => row.paidOn,
    cell: (row) => shortDate(row.paidOn),
  },
  { key: "kind", title: "Kind", width: "104px", cell: (row) => row.kind },
  {
    key: "number",
    title: "Number",
    width: "minmax(90px,0.9fr)",
    cell: (row) => <span className="font-mono text-note">{row.number}</span>,
  },
  { key: "payee", title: "Payee", width: "minmax(140px,1.5fr)", cell: (row) => row.payee },
  {
    key: "amount",
    title: "Amount",
    width: "100px",
    right: true,
    words: (row) => row.amount.text,
    cell: (row) => <Amount of={row.amount} />,
  },
  {
    key: "state",
    title: "State",
    width: "104px",
    cell: (row) => <span className={row.undone ? "text-brass" : ""}>{row.state}</span>,
  },
  {
    key: "statement",
    title: "Stands on",
    width: "minmax(112px,0.9fr)",
    cell: (row) => <span className="font-mono text-note">{row.statementReference ?? ""}</span>,
  },
];

/** What was paid elsewhere, from the day it was recorded on. */
export function OutsidePage() {
  const [values, change] = useAddress();
  const [selected, setSelected] = useState(new Set<string>());
  const { roles } = useSession();
  const navigate = useNavigate();
  const ways = useQuery({ queryKey: ["outside-ways"], queryFn: () => call(api.GET("/api/outside/ways")) });
  const asked = {
    text: values.text,
    way: values.way ? Number(values.way) : undefined,
    from: values.from,
    to: values.to,
  };
  const list = useQuery({
    queryKey: ["outside", asked],
    queryFn: () => call(api.GET("/api/outside", { params: { query: asked } })),
    placeholderData: keepPreviousData,
  });
  const rows = list.data?.rows ?? [];
  const cursor = values.at ?? (rows.length === 1 ? String(rows[0]!.claim) : undefined);
  const at = rows.find((row) => String(row.claim) === cursor);
  const way = ways.data?.find((one) => one.way === asked.way);
  const undoable = rows.flatMap((row) =>
    selected.has(String(row.claim)) && row.inTheLedger && row.payment ? [row.payment] : [],
  );
  const narrow = (next: Record<string, string | undefined>) => change({ ...next, at: undefined });
  return (
    <Station
      title="Payments made elsewhere"
      sentence={
        <>
          Payments made elsewhere by{" "}
          <ChoiceWord
            name="Way"
            text={way?.name ?? "every way"}
            value={values.way ?? ""}
            choices={[
              { value: "", text: "every way" },
              ...(ways.data ?? []).map((one) => ({
                value: String(one.way),
                text: one.name,
                detail: one.accountName,
              })),
            ]}
            onChange={(next) => narrow({ way: next || undefined })}
          />
          , from{" "}
          <DayWord
            name="From"
            text={values.from ? longDate(values.from) : "any day"}
            value={values.from ?? ""}
            none="Any day"
            onChange={(from) => narrow({ from })}
          />{" "}
          to{" "}
          <DayWord
            name="To"
            text={values.to ? longDate(values.to) : "any day"}
            value={values.to ?? ""}
            none="Any day"
            onChange={(to) => narrow({ to })}
          />
          , whose number or payee holds{" "}
          <input
            aria-label="Number or payee"
            className="min-h-7 w-40 py-0 text-base"
            value={values.text ?? ""}
            placeholder="anything"
            onChange={(event) => narrow({ text: event.target.value || undefined })}
          />
          .
        </>
      }
      answer={
        list.data && (
          <>
            <Figure value={`${rows.length}${list.data.more ? "+" : ""}`}>listed</Figure>
            {list.data.amounts.map((sum) => (
              <Figure key={sum.currency} value={`${sum.text} ${sum.currency}`}>
                without what was undone
              </Figure>
            ))}
            {list.data.more && <span className="text-brass">there are more: name days, or a way</span>}
          </>
        )
      }
      list={
        <Loaded query={list}>
          {() => (
            <Grid
              list="outside"
              label="Payments made elsewhere"
              items={rows.map((row) => ({ key: String(row.claim), row }))}
              columns={COLUMNS}
              cursor={cursor}
              onCursor={(key) => change({ at: key })}
              selected={selected}
              onSelect={setSelected}
              onEnter={(key) => {
                const row = rows.find((one) => String(one.claim) === key);
                if (row) navigate(`/batches/${row.batch}`);
              }}
              empty="None fits. Checks written by hand, wires and payments by company card stand here once they are recorded."
            />
          )}
        </Loaded>
      }
      bar={
        <>
          {selected.size > 1 && (
            <Figure value={selected.size}>selected, {undoable.length} of them can be undone</Figure>
          )}
          {roles.includes("CLERK") && (
            <span className="ml-auto flex gap-2">
              {selected.size > 1 && (
                <Button
                  disabled={undoable.length === 0}
                  onClick={() => navigate(`/undo?payments=${writeRanges(undoable)}`)}
                >
                  Undo {undoable.length}…
                </Button>
              )}
              <Button look="deed" onClick={() => navigate("/outside/new")}>
                Record payments…
              </Button>
            </span>
          )}
        </>
      }
      slip={at ? <OutsideSlip row={at} /> : <p className="text-faint">Move the cursor onto a payment.</p>}
    />
  );
}

/** One of them: where it stands, and what undoing it would do. */
function OutsideSlip({ row }: { row: Row }) {
  const { roles } = useSession();
  return (
    <div className="flex flex-col gap-4">
      <h2 className="text-base font-bold">
        {row.kind.charAt(0).toUpperCase() + row.kind.slice(1)} <span className="font-mono">{row.number}</span>
        , {row.state}
      </h2>
      <p>
        <Link className="go" to={`/vendors/${row.vendor}`}>
          {row.payee}
        </Link>
        , <b>{row.amount.text}</b> {row.amount.currency}, paid on {longDate(row.paidOn)} from {row.account}
        {row.ledgerDate && row.ledgerDate !== row.paidOn && `, in the ledger on ${longDate(row.ledgerDate)}`};
        recorded in{" "}
        <Link className="go" to={`/batches/${row.batch}`}>
          {row.batchName}
        </Link>
        .
      </p>
      {row.statement && (
        <p>
          It stands on statement{" "}
          <Link className="go font-mono" to={`/invoices/${row.statement}`}>
            {row.statementReference}
          </Link>
          .
        </p>
      )}
      {row.check && (
        <Link className="go" to={`/register?series=all&check=${row.check}`}>
          Its number in the register, to be stopped or paid once more
        </Link>
      )}
      {row.payment && row.inTheLedger && !row.check && (
        <AdvicePart key={row.payment} payment={row.payment} name={row.number} />
      )}
      {row.payment && row.inTheLedger && roles.includes("CLERK") && (
        <UndoPart key={row.payment} payment={row.payment} name="this payment" />
      )}
    </div>
  );
}
