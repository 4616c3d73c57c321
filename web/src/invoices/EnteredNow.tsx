import { shortDate } from "../parts/dates";

export interface Entered {
  entry: number;
  vendor: string;
  reference: string;
  amount: string;
  dueDate: string;
  /** What is left to pay of it, where something was paid ahead; empty where nothing was. */
  left: string;
}

/** What was entered since the page was opened, the last first. */
export function EnteredNow({ entered }: { entered: Entered[] }) {
  return (
    <section aria-live="polite">
      <h2 className="mb-2 font-semibold">Entered now</h2>
      {entered.length === 0 && (
        <p className="text-faint">
          What you enter is posted at once: its lines are debited and payables credited. It appears here.
        </p>
      )}
      <ul>
        {entered.map((one) => (
          <li key={one.entry} className="border-hair border-b py-1">
            <b>{one.entry}</b> {one.vendor} <span className="font-mono text-note">{one.reference}</span>
            <span className="flex justify-between">
              <span className="text-faint">due {shortDate(one.dueDate)}</span>
              <span>{one.amount}</span>
            </span>
            {one.left && (
              <span className="text-faint">matched with what was paid ahead; {one.left} is left to pay</span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
