import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { longDate, shortDate } from "../parts/dates";

/** One check that was not presented: its payee, how it was asked, and the ways out. */
export function StaleSlip({ check }: { check: Schemas["StaleCheck"] }) {
  return (
    <div className="flex flex-col gap-4">
      <h2 className="text-base font-bold">
        <span className="font-mono">{check.name}</span>, {check.days} days old
      </h2>
      <p>
        <Link className="go" to={`/vendors/${check.vendor}`}>
          {check.payee}
        </Link>
        , <b>{check.amount.text}</b> {check.amount.currency}, {longDate(check.checkDate)}.
        <span className="text-faint block">{check.address}</span>
        {!check.reachable && <span className="text-faint block">No mail address is known.</span>}
      </p>
      <section aria-label="How the payee was asked">
        <h3 className="text-faint mb-1 text-note font-semibold">How the payee was asked</h3>
        {check.contacts.length === 0 ? (
          <p className="text-brass">Not yet.</p>
        ) : (
          <ol>
            {check.contacts.map((one, i) => (
              <li key={i} className="border-hair border-t py-1">
                <b>{longDate(one.on)}</b>, {one.how}
                {one.note && `: ${one.note}`}
                <span className="text-faint block text-note">
                  {one.who}, {shortDate(one.at.slice(0, 10))}
                </span>
              </li>
            ))}
          </ol>
        )}
      </section>
      <p>
        {check.unclaimedFrom ? (
          <>
            {check.state} takes it as unclaimed from <b>{longDate(check.unclaimedFrom)}</b> on, once its payee
            was asked by letter or mail.
          </>
        ) : (
          <span className="text-faint">
            It is not kept when the state of its address takes what is unclaimed.
          </span>
        )}
      </p>
      <p>
        <Link className="go" to={`/register?series=all&check=${check.check}`}>
          In the register
        </Link>{" "}
        it is stopped, paid once more, or voided.
      </p>
    </div>
  );
}
