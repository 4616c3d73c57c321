import type { ReactNode } from "react";
import { Link } from "react-router";
import { useSetup } from "./useSetup";

/** Why a list is empty: while something is missing before the first check, that, with the way there. */
export function WhatIsMissing({ children }: { children: ReactNode }) {
  const setup = useSetup();
  const missing = (setup.data?.steps ?? []).filter((step) => !step.done && !step.optional);
  if (missing.length === 0) return <>{children}</>;
  return (
    <div className="flex flex-col gap-2 p-6">
      <p>{children}</p>
      <p className="text-faint">Before the first check, this is missing:</p>
      <ul>
        {missing.map((step) => (
          <li key={step.step} className="py-0.5">
            <Link className="go font-bold" to={step.address}>
              {step.title}
            </Link>
            <span className="ml-2">{step.missing}</span>
          </li>
        ))}
      </ul>
      <p>
        <Link className="go" to="/setup">
          All steps
        </Link>
      </p>
    </div>
  );
}
