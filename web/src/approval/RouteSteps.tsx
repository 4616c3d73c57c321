import type { Schemas } from "../api/client";
import { clock, waited } from "../parts/dates";

/** A route step by step: who is asked, who answered, what waits. */
export function RouteSteps({ route }: { route: Schemas["RouteView"] }) {
  return (
    <section aria-label="Route">
      <p>
        Route <b>{route.route}</b>: {route.why}.
      </p>
      <ol className="border-hair mt-2 border-t">
        {route.steps.map((step, i) => (
          <li key={i} className="border-hair border-b py-1.5">
            <span className="flex items-baseline gap-2">
              <span className="text-faint">{i + 1}</span>
              <b>{step.name}</b>
              <span className="ml-auto text-note">
                {step.state === "DONE" ? (
                  <span className="text-greentext font-semibold">done</span>
                ) : step.state === "NOW" ? (
                  <span className="text-brass font-semibold">
                    waits{step.openedAt && `, ${waited(step.openedAt, route.now)}`}
                  </span>
                ) : route.sent ? (
                  <span className="text-faint">later</span>
                ) : null}
              </span>
            </span>
            <span className="text-faint block text-note">{step.who}</span>
            {step.given.map((given, j) => (
              <span key={j} className="block text-note">
                approved by {given.who}
                {given.onBehalfOf && ` for ${given.onBehalfOf}`}, {clock(given.at)}
              </span>
            ))}
            {step.state === "NOW" && (
              <span className="block text-note">
                {step.asked.length > 0
                  ? `asked: ${step.asked.join(", ")}`
                  : "nobody can answer this step now; send the batch back or name a deputy"}
              </span>
            )}
            {step.remindedAt && (
              <span className="text-faint block text-note">reminded {clock(step.remindedAt)}</span>
            )}
            {step.escalatedAt && (
              <span className="text-faint block text-note">
                second line asked {clock(step.escalatedAt)}: {step.secondLine.join(", ")}
              </span>
            )}
          </li>
        ))}
      </ol>
      {route.shortOf && (
        <p role="alert" className="text-rust mt-2">
          Step “{route.shortOf}” stays short of people: nobody approves what they prepared, a vendor they
          changed lately, or two steps. Ask the controller to change the route.
        </p>
      )}
    </section>
  );
}
