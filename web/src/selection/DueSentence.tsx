import { ChoiceWord, DayWord } from "../parts/Word";
import { KeptCriteria } from "./KeptCriteria";
import { MoreCriteria } from "./MoreCriteria";
import type { Account, Change, HowListed, ListedBy, Question, Showing } from "./criteria";
import type { DueView } from "./useDueList";
import { said, given, waysFrom, LimitWord, VendorsWord } from "./DueWords";

const SHOWN: Record<Showing, string> = {
  ALL: "all",
  TAKEN: "what is taken",
  LEFT_OUT: "what is left out",
};

const LISTED: Record<ListedBy, string> = {
  DAY: "due day",
  VENDOR: "vendor",
  GROUP: "vendor group",
  CASH: "order of cash",
};

/** The criteria as a sentence whose words are the controls. */
export function DueSentence({
  accounts,
  question,
  view,
  how,
  change,
}: {
  accounts: Account[];
  question: Question;
  view: DueView | undefined;
  how: HowListed;
  change: Change;
}) {
  const account = accounts.find((a) => a.id === question.account) ?? accounts[0]!;
  const way = account.ways.find((w) => w.id === question.wayToPay) ?? account.ways[0];
  // marks by hand belong to the list they were made in
  const afresh = { out: undefined, in: undefined, at: undefined };
  return (
    <>
      Pay from{" "}
      <ChoiceWord
        name="Bank account"
        text={account.name}
        value={String(account.id)}
        choices={accounts.map((a) => ({
          value: String(a.id),
          text: a.name,
          detail: `${a.bankName}, ${a.currency}`,
        }))}
        onChange={(value) => change({ ...afresh, account: value, pay: undefined, check: undefined })}
      />{" "}
      on{" "}
      <DayWord
        name="Check date"
        text={said(question.checkDate, view?.checkDate)}
        value={given(question.checkDate, view?.checkDate)}
        onChange={(value) => change({ check: value })}
      />{" "}
      {/* asked for before the batch is made: what is open then is what can be paid */}
      (ledger{" "}
      <DayWord
        name="Ledger date"
        text={question.ledgerDate ? said(question.ledgerDate, view?.ledgerDate) : "the same day"}
        value={question.ledgerDate ?? ""}
        none="The check date"
        onChange={(value) => change({ ledger: value })}
      />
      ) what is due by{" "}
      <DayWord
        name="Due by"
        text={said(question.dueBy, view?.dueBy)}
        value={given(question.dueBy, view?.dueBy)}
        onChange={(value) => change({ due: value })}
      />{" "}
      or loses its discount before{" "}
      <DayWord
        name="Next run"
        text={said(question.nextRun, view?.nextRun)}
        value={given(question.nextRun, view?.nextRun)}
        none="Leave discounts out of it"
        onChange={(value) => change({ next: value ?? "none" })}
      />
      , to{" "}
      <VendorsWord
        vendors={question.vendors ?? []}
        onChange={(next) => change({ ...afresh, vendors: next.length ? next.join(".") : undefined })}
      />
      , by{" "}
      <ChoiceWord
        name="Way to pay"
        text={way?.words ?? "no way yet"}
        value={String(way?.id)}
        choices={waysFrom(account, accounts).map(({ from, way }) => ({
          value: String(way.id),
          text: way.words,
          detail: `${way.name} of ${from.name}`,
        }))}
        onChange={(value) => {
          const chosen = waysFrom(account, accounts).find(({ way }) => String(way.id) === value);
          if (chosen) change({ ...afresh, account: String(chosen.from.id), pay: value, check: undefined });
        }}
      />
      ,{" "}
      <ChoiceWord
        name="Credits"
        text={question.credits ? "less open credits" : "without credits"}
        value={question.credits ? "yes" : "no"}
        choices={[
          { value: "no", text: "without credits" },
          { value: "yes", text: "less open credits", detail: "oldest first, same vendor and address" },
        ]}
        onChange={(value) => change({ credits: value === "yes" ? "yes" : undefined })}
      />
      , up to <LimitWord question={question} view={view} currency={account.currency} change={change} />
      <MoreCriteria question={question} change={change} />; listing{" "}
      <ChoiceWord
        name="Listing"
        text={SHOWN[how.showing]}
        value={how.showing}
        choices={(Object.keys(SHOWN) as Showing[]).map((value) => ({ value, text: SHOWN[value] }))}
        onChange={(value) => change({ show: value === "ALL" ? undefined : value, at: undefined })}
      />{" "}
      by{" "}
      <ChoiceWord
        name="Listed by"
        text={LISTED[how.listedBy]}
        value={how.listedBy}
        choices={(Object.keys(LISTED) as ListedBy[]).map((value) => ({
          value,
          text: LISTED[value],
          detail: value === "CASH" ? "claims, with the cash line" : undefined,
        }))}
        onChange={(value) => change({ by: value })}
      />
      . <KeptCriteria question={question} change={change} />
    </>
  );
}
