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
    const write = () => {
      const next = new URLSearchParams();
      for (const [key, value] of Object.entries(values)) if (value) next.set(key, value);
      if (next.toString() !== written.current) {
        written.current = next.toString();
        setParams(next, { replace: true });
      }
    };
    const timer = setTimeout(write, SETTLED_MS);
    // Enter and the mouse may lead elsewhere: what stands here now is what the way back comes to
    const leaving = (event: Event) => {
      if (!(event instanceof KeyboardEvent) || event.key === "Enter") write();
    };
    document.addEventListener("keydown", leaving, true);
    document.addEventListener("pointerdown", leaving, true);
    return () => {
      clearTimeout(timer);
      document.removeEventListener("keydown", leaving, true);
      document.removeEventListener("pointerdown", leaving, true);
    };
  }, [values, setParams]);
  return [values, (next) => setValues((before) => ({ ...before, ...next }))];
}
