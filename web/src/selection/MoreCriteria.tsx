import { useQuery } from "@tanstack/react-query";
import { api, call } from "../api/client";
import { Word } from "../parts/Word";
import { FURTHER, type Change, type Further, type Question } from "./criteria";

const RANGES: { title: string; from: Further; to: Further; hint: string }[] = [
  { title: "Priority", from: "priorityFrom", to: "priorityTo", hint: "1" },
  { title: "Dated", from: "datedFrom", to: "datedTo", hint: "2026-10-01, 2 weeks ago" },
  { title: "Their reference", from: "referenceFrom", to: "referenceTo", hint: "A" },
  { title: "Entry number", from: "entryFrom", to: "entryTo", hint: "7001" },
  { title: "Open amount", from: "amountFrom", to: "amountTo", hint: "100.00" },
];

/** The further criteria behind “and 3 more”: they are asked for together, so that nothing runs half typed. */
export function MoreCriteria({ question, change }: { question: Question; change: Change }) {
  const set = FURTHER.filter((name) => question[name] !== undefined && question[name] !== null).length;
  return (
    <>
      {" "}
      <Word name="Further criteria" text={set === 0 ? "and nothing more" : `and ${set} more`}>
        {(close) => <Form question={question} change={change} close={close} />}
      </Word>
    </>
  );
}

function Form({ question, change, close }: { question: Question; change: Change; close: () => void }) {
  const groups = useQuery({
    queryKey: ["vendor-groups"],
    queryFn: () => call(api.GET("/api/vendors/groups")),
  });
  const value = (name: Further) => String(question[name] ?? "");
  return (
    <form
      className="flex w-[420px] flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const data = new FormData(event.currentTarget);
        change(
          Object.fromEntries(FURTHER.map((name) => [name, String(data.get(name) ?? "").trim() || undefined])),
        );
        close();
      }}
    >
      <label className="grid grid-cols-[120px_1fr] items-center gap-2">
        <span>Vendor group</span>
        <select name="vendorGroup" defaultValue={value("vendorGroup")} key={groups.data?.length}>
          <option value="">any</option>
          {groups.data?.map((group) => (
            <option key={group}>{group}</option>
          ))}
        </select>
      </label>
      {RANGES.map((range) => (
        <div key={range.from} className="grid grid-cols-[120px_1fr_auto_1fr] items-center gap-2">
          <span>{range.title}</span>
          <input
            name={range.from}
            aria-label={`${range.title} from`}
            placeholder={range.hint}
            defaultValue={value(range.from)}
          />
          <span>to</span>
          <input name={range.to} aria-label={`${range.title} to`} defaultValue={value(range.to)} />
        </div>
      ))}
      <label className="grid grid-cols-[120px_1fr] items-center gap-2">
        <span>Smallest payment</span>
        <input name="smallest" inputMode="decimal" className="text-right" defaultValue={value("smallest")} />
      </label>
      <label className="grid grid-cols-[120px_1fr] items-center gap-2">
        <span>Grouped</span>
        <select name="grouping" defaultValue={value("grouping")}>
          <option value="">one payment to a payee</option>
          <option value="INVOICE">one payment for an invoice</option>
        </select>
      </label>
      <label className="grid grid-cols-[120px_1fr] items-center gap-2">
        <span>Claims by</span>
        <select name="order" defaultValue={value("order")}>
          <option value="">payee name</option>
          <option value="VENDOR_NUMBER">vendor number</option>
          <option value="AMOUNT">amount, largest first</option>
          <option value="POSTAL_CODE">postal code</option>
        </select>
      </label>
      <div className="flex justify-end gap-2">
        <button
          type="button"
          className="go min-h-8 px-2"
          onClick={() => {
            change(Object.fromEntries(FURTHER.map((name) => [name, undefined])));
            close();
          }}
        >
          Ask for nothing more
        </button>
        <button className="bg-harbour text-onharbour min-h-8 px-3 font-bold">Ask for this</button>
      </div>
    </form>
  );
}
