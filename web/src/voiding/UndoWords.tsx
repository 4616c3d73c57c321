import { useQuery } from "@tanstack/react-query";
import { api, call } from "../api/client";
import { longDate } from "../parts/dates";
import { ChoiceWord, DayWord } from "../parts/Word";
import type { Fate, Undo } from "./useUndo";

const FATES: Record<Fate["how"], string> = {
  OPEN: "come back open",
  HELD: "come back held",
  OWN_LINES: "are cancelled against their own accounts",
  ONE_ACCOUNT: "are cancelled against one account",
  UNCLAIMED: "stay paid, and its money is handed over as unclaimed",
};

/** The sentence of undoing: on which day, and what becomes of the invoices. */
export function UndoWords({ undo, today }: { undo: Undo; today: string }) {
  const { wish, change } = undo;
  const paidInvoices = undo.would.data?.payments.some((one) => one.items.length > 0) ?? true;
  return (
    <>
      on{" "}
      <DayWord
        name="Dated"
        text={
          wish.date === undefined
            ? "its own date"
            : wish.date === today
              ? `today, ${longDate(today)}`
              : longDate(wish.date)
        }
        value={wish.date ?? ""}
        none="Its own date"
        onChange={(date) => change({ date })}
      />
      {(paidInvoices || wish.others.how === "UNCLAIMED") && (
        <>
          ; invoices{" "}
          <FateWord
            name="Invoices"
            whole
            fate={wish.others}
            onFate={(others) => change({ others, single: {} })}
          />
          {wish.others.how === "OPEN" && <DraftWord undo={undo} />}
        </>
      )}
      {undo.would.data?.comesBack && (
        <>
          ; the bank calls its return{" "}
          <input
            aria-label="The bank’s reference of the return"
            className="min-h-7 w-40 py-0 font-mono"
            maxLength={35}
            value={wish.bankReference ?? ""}
            onChange={(event) => change({ bankReference: event.target.value || undefined })}
          />
        </>
      )}
      .
    </>
  );
}

/** What becomes of an invoice, and the account where one takes it. */
export function FateWord({
  name,
  fate,
  onFate,
  text,
  own = true,
  whole = false,
}: {
  name: string;
  fate: Fate;
  onFate: (fate: Fate) => void;
  /** What it says, where that is not the fate itself. */
  text?: string;
  /** False where the account is chosen elsewhere, for all of them. */
  own?: boolean;
  /** True where it is the fate of a whole payment. */
  whole?: boolean;
}) {
  return (
    <>
      <ChoiceWord
        name={name}
        text={text ?? FATES[fate.how]}
        value={fate.how}
        choices={(Object.keys(FATES) as Fate["how"][])
          .filter((how) => whole || how !== "UNCLAIMED")
          .map((how) => ({
            value: how,
            text: FATES[how],
            detail: how === "OPEN" || how === "HELD" ? undefined : "by two people",
          }))}
        onChange={(how) => onFate({ how })}
      />
      {own && (fate.how === "ONE_ACCOUNT" || fate.how === "UNCLAIMED") && (
        <AccountWord fate={fate} onFate={onFate} name={`Account for ${name}`} />
      )}
    </>
  );
}

function AccountWord({ name, fate, onFate }: { name: string; fate: Fate; onFate: (fate: Fate) => void }) {
  const accounts = useQuery({
    queryKey: ["accounts"],
    queryFn: () => call(api.GET("/api/ledger-accounts")),
  });
  const open = accounts.data?.filter(
    (one) =>
      one.open &&
      (fate.how === "UNCLAIMED" ? one.kind === "LIABILITY" : one.kind !== "CASH" && one.kind !== "PAYABLES"),
  );
  const chosen = open?.find((one) => one.id === fate.account);
  return (
    <>
      ,{" "}
      <ChoiceWord
        name={name}
        text={chosen ? `${chosen.code} ${chosen.name}` : "choose the account"}
        value={String(fate.account ?? "")}
        choices={(open ?? []).map((one) => ({
          value: String(one.id),
          text: `${one.code} ${one.name}`,
          detail: one.kindWords,
        }))}
        onChange={(id) => onFate({ ...fate, account: Number(id) })}
      />
    </>
  );
}

/** A draft that takes the invoices at once, so that they are paid again without being looked for. */
function DraftWord({ undo }: { undo: Undo }) {
  const drafts = useQuery({
    queryKey: ["batches", ["DRAFT"]],
    queryFn: () => call(api.GET("/api/batches", { params: { query: { state: ["DRAFT"] } } })),
  });
  const chosen = drafts.data?.find((one) => one.id === undo.wish.into);
  if (!drafts.data?.length) return null;
  return (
    <>
      {" "}
      and go into{" "}
      <ChoiceWord
        name="Draft"
        text={chosen ? `“${chosen.name}”` : "no draft"}
        value={String(undo.wish.into ?? "")}
        choices={[
          { value: "", text: "no draft" },
          ...drafts.data.map((one) => ({
            value: String(one.id),
            text: `“${one.name}”`,
            detail: one.account,
          })),
        ]}
        onChange={(id) => undo.change({ into: id ? Number(id) : undefined })}
      />
    </>
  );
}
