import { useCallback, useState } from "react";

const PREFIX = "level-tally.typed-";
const WHO = "level-tally.typed-by";

/** Whoever sits down finds what they typed, and nothing that somebody else did. */
export function typedBy(person: number): void {
  if (sessionStorage.getItem(WHO) === String(person)) return;
  Object.keys(sessionStorage)
    .filter((key) => key.startsWith(PREFIX))
    .forEach((key) => sessionStorage.removeItem(key));
  sessionStorage.setItem(WHO, String(person));
}

function read<T>(key: string): T | undefined {
  const text = sessionStorage.getItem(PREFIX + key);
  return text === null ? undefined : (JSON.parse(text) as T);
}

/**
 * What is being typed, kept in this tab until it is done with: neither a refusal nor a step elsewhere, a dialog closed by
 * mistake or a reload loses it.
 *
 * @param key names the thing it is typed for
 * @param given what stands there before anything is typed
 * @returns what stands there now, how to change it, and how to forget it
 */
export function useKept<T extends string | object | undefined>(
  key: string,
  given: T,
): [T, (next: T | ((now: T) => T)) => void, () => void] {
  const [typed, setTyped] = useState(() => ({ key, value: read<T>(key) }));
  const value = typed.key === key ? typed.value : read<T>(key);
  const set = useCallback(
    (next: T | ((now: T) => T)) => {
      // what is kept, not what was drawn last: a late answer changes only its own part
      const value = typeof next === "function" ? next(read<T>(key) ?? given) : next;
      sessionStorage.setItem(PREFIX + key, JSON.stringify(value));
      setTyped({ key, value });
    },
    [key, given],
  );
  const forget = useCallback(() => {
    sessionStorage.removeItem(PREFIX + key);
    setTyped({ key, value: undefined });
  }, [key]);
  return [value ?? given, set, forget];
}
