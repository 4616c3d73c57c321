import { useEffect, useState } from "react";

/** Waits until the cursor rests, so that running through a list loads nothing. */
export function useRest<T>(value: T): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), 150);
    return () => clearTimeout(timer);
  }, [value]);
  return rested;
}
