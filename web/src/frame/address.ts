import { useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";

type Values = Record<string, string | undefined>;

const SETTLED_MS = 250;

/**
 * State that stands in the address, so that it can be linked and survives a reload. It changes at once and is written
 * to the address when it rests, because a key held down must never wait for a navigation.
 */
export function useAddress(): [Values, (next: Values) => void] {
  const [params, setParams] = useSearchParams();
  const written = useRef(params.toString());
  const [values, setValues] = useState<Values>(() => Object.fromEntries(params));
  // an address that somebody else wrote, such as a link from the search
  useEffect(() => {
    if (params.toString() !== written.current) {
      written.current = params.toString();
      setValues(Object.fromEntries(params));
    }
  }, [params]);
  useEffect(() => {
    const timer = setTimeout(() => {
      const next = new URLSearchParams();
      for (const [key, value] of Object.entries(values)) if (value) next.set(key, value);
      if (next.toString() !== written.current) {
        written.current = next.toString();
        setParams(next, { replace: true });
      }
    }, SETTLED_MS);
    return () => clearTimeout(timer);
  }, [values, setParams]);
  return [values, (next) => setValues((before) => ({ ...before, ...next }))];
}
