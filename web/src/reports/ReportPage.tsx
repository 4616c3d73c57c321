import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, call } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { PeriodLock } from "../ledger/PeriodDeeds";
import { ChoiceWord } from "../parts/Word";
import { AsOf, Named, OfYear } from "./Reported";

const useBatch = () => Number(useParams().id);

/** What a batch will pay, payee by payee. */
export function PaymentsListPage() {
  const batch = useBatch();
  return (
    <Named
      name="payments-list"
      asked={{ batch }}
      back={{ to: `/batches/${batch}`, words: "Back to the batch" }}
    />
  );
}

/** What was printed of a batch, sheet by sheet. */
export function RunRegisterPage() {
  const batch = useBatch();
  return (
    <Named
      name="run-register"
      asked={{ batch }}
      back={{ to: `/print/${batch}`, words: "Back to printing" }}
    />
  );
}

/** What was posted of a batch, payment by payment. */
export function PostingRegisterPage() {
  const batch = useBatch();
  return (
    <Named
      name="posting-register"
      asked={{ batch }}
      back={{ to: `/batches/${batch}/recap`, words: "Debits and credits" }}
    />
  );
}

/** Debits and credits of a batch, by month and account. */
export function PostingRecapPage() {
  const batch = useBatch();
  return (
    <Named name="posting-recap" asked={{ batch }} back={{ to: `/batches/${batch}/jobs`, words: "By job" }} />
  );
}

/** The money of a batch by the jobs and accounts of what it paid. */
export function PostingJobsPage() {
  const batch = useBatch();
  return (
    <Named
      name="posting-jobs"
      asked={{ batch }}
      back={{ to: `/batches/${batch}/posted`, words: "Payment by payment" }}
    />
  );
}

export function AgingPage() {
  return (
    <AsOf
      name="aging"
      words="What was owed at the end of"
      back={(on) => ({ to: `/aging/documents?on=${on}`, words: "Document by document" })}
    />
  );
}

/** Every document that was open on a day. */
export function OpenDocumentsPage() {
  return (
    <AsOf
      name="open-documents"
      words="Documents open at the end of"
      back={(on) => ({ to: `/aging?on=${on}`, words: "Vendor by vendor, by age" })}
    />
  );
}

export function OutstandingPage() {
  return <AsOf name="outstanding" words="Checks the bank had not paid at the end of" />;
}

/** What a month still holds before it is locked; any day of it says which month. */
export function ClosingPage() {
  const { today } = useSession();
  const [values, change] = useAddress();
  const periods = useQuery({ queryKey: ["periods"], queryFn: () => call(api.GET("/api/periods")) });
  const month = values.month ?? (values.on ?? today).slice(0, 7);
  const period = periods.data?.find((one) => one.month === month);
  return (
    <Named
      name="closing"
      asked={{ on: `${month}-01` }}
      empty="Nothing of this month waits: all of it is posted, answered and told."
      sentence={
        <>
          What is still to be looked at in{" "}
          <ChoiceWord
            name="Month"
            text={period?.name ?? month}
            value={month}
            choices={(periods.data ?? []).map((one) => ({
              value: one.month,
              text: one.name,
              detail: one.stand,
            }))}
            onChange={(next) => change({ month: next, on: undefined, at: undefined })}
          />
          {period && `, ${period.stand}`}.
        </>
      }
      deeds={period && <PeriodLock key={period.month} period={period} />}
    />
  );
}

/** What reportable vendors were paid in a year. */
export function ReportablePage() {
  return (
    <OfYear
      name="reportable"
      words="What reportable vendors were paid in"
      empty="No vendor that was paid in that year is reported. What a vendor is reported as stands on its page."
      back={(year) => ({ to: `/reportable/changed?year=${year}`, words: "Undone in a later year" })}
    />
  );
}

/** Checks whose money went to the state of their payee in a year. */
export function UnclaimedPage() {
  return (
    <OfYear
      name="unclaimed"
      words="What was handed over as unclaimed in"
      empty="Nothing was handed over in that year."
      back={() => ({ to: "/stale", words: "Checks not presented" })}
    />
  );
}
