import type { Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Download } from "../parts/Download";
import type { HowListed, Question } from "./criteria";
import type { DueView } from "./useDueList";

const sums = (amounts: Schemas["MoneyView"][]) => amounts.map((m) => `${m.text} ${m.currency}`).join(" and ");

/** What is taken and selected, the list to take away, and the batch to make of it. */
export function DueBar({
  view,
  question,
  how,
  total,
  may,
  onMake,
  onRun,
}: {
  view: DueView | undefined;
  question: Question;
  how: HowListed;
  total: Schemas["TotalView"] | undefined;
  /** Whether a batch can be made of what is shown. */
  may: boolean;
  onMake: () => void;
  /** Asks for the batches of all ways at once. */
  onRun: () => void;
}) {
  const count = view?.count ?? 0;
  const listed = total
    ? `${total.count} selected, open ${sums(total.open)}, to pay ${total.toPay}`
    : view && `${view.listed} listed, open ${sums(view.open)}`;
  return (
    <>
      <span aria-live="polite">
        <b>{count}</b> taken, <b>{view?.toPay ?? "–"}</b>
      </span>
      <span className="text-faint min-w-24 flex-1 truncate" title={listed}>
        {listed}
      </span>
      <Download path="/api/due/csv" params={{ ...question, ...how }} />
      <Button disabled={!may} onClick={onRun}>
        All ways…
      </Button>
      <Button look="deed" disabled={!may || count === 0} onClick={onMake}>
        Make the batch of {count}
      </Button>
    </>
  );
}
