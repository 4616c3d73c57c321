import type { ReactNode } from "react";
import { Button } from "./Button";

/** A question to the server, as far as it matters whether its answer is here. */
interface Asked<T> {
  data: T | undefined;
  error: Error | null;
  isFetching: boolean;
  refetch: () => unknown;
}

/**
 * What was asked for. On its way, failed, and here (empty or not) are three different things; what is here stays when asking
 * again fails.
 */
export function Loaded<T>({ query, children }: { query: Asked<T>; children: (data: T) => ReactNode }) {
  const again = (
    <Button disabled={query.isFetching} onClick={() => void query.refetch()}>
      Try again
    </Button>
  );
  if (query.data !== undefined)
    return (
      <>
        {query.error && (
          <p
            role="alert"
            className="text-rust border-hair flex shrink-0 items-center gap-3 border-b px-4 py-1 text-note"
          >
            <span className="flex-1">
              What you see is from before; it could not be asked again. {query.error.message}
            </span>
            {again}
          </p>
        )}
        {children(query.data)}
      </>
    );
  if (query.error)
    return (
      <div role="alert" className="text-rust flex flex-col items-start gap-3 p-6">
        <p>{query.error.message}</p>
        {again}
      </div>
    );
  return <Skeleton />;
}

/** Grey rows of the right height while a list loads. */
function Skeleton() {
  return (
    <div role="status" aria-label="Loading" className="flex-1 overflow-hidden">
      {Array.from({ length: 16 }, (_, i) => (
        <div key={i} aria-hidden className="border-hair flex h-[30px] items-center border-b px-4">
          <div className="bg-hair/60 h-3" style={{ width: `${40 + ((i * 37) % 45)}%` }} />
        </div>
      ))}
    </div>
  );
}
