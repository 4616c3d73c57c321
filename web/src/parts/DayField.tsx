import { useEffect, useRef, useState } from "react";
import { api, call } from "../api/client";
import { longDate } from "./dates";

/** Whether a text is a date as programs write it. */
export function isDate(text: string): boolean {
  return /^\d{4}-\d{2}-\d{2}$/.test(text);
}

/**
 * A day typed as people say it: `20 nov`, `fri`, `end of month`, `2026-11-20`. The server reads it; what it means stands
 * below. `onDay` gets it once it is a day, and `undefined` while it is none or being read.
 */
export function DayField({
  label,
  value,
  onDay,
  relative = false,
  unseen = false,
  autoFocus = false,
  name,
}: {
  label: string;
  /** A date, or words that move with the day. */
  value: string;
  onDay: (day: string | undefined) => void;
  /** Keeps words that move with the day as they were typed. */
  relative?: boolean;
  /** True where a heading says what the label says. */
  unseen?: boolean;
  autoFocus?: boolean;
  name?: string;
}) {
  const [text, setText] = useState(isDate(value) ? longDate(value) : value);
  const [said, setSaid] = useState<{ words: string; refused: boolean }>();
  const asked = useRef(0);
  const given = useRef(value);
  useEffect(() => {
    // a value from elsewhere, not one this field gave itself
    if (value !== given.current) {
      given.current = value;
      setText(isDate(value) ? longDate(value) : value);
      setSaid(undefined);
    }
  }, [value]);
  const give = (day: string | undefined) => {
    given.current = day ?? "";
    onDay(day);
  };
  const read = async (typed: string) => {
    const mine = ++asked.current;
    if (!typed.trim()) {
      setSaid(undefined);
      give(undefined);
      return;
    }
    try {
      const day = await call(api.GET("/api/due/day", { params: { query: { text: typed } } }));
      if (mine !== asked.current) return;
      setSaid({ words: longDate(day.date), refused: false });
      give(relative && day.relative ? typed.trim().toLowerCase() : day.date);
    } catch (error) {
      if (mine !== asked.current) return;
      setSaid({ words: error instanceof Error ? error.message : "That is no day.", refused: true });
      give(undefined);
    }
  };
  return (
    <label className="flex flex-col gap-1">
      <span className={unseen ? "sr-only" : "text-faint text-note"}>{label}</span>
      <input
        name={name}
        value={text}
        autoFocus={autoFocus}
        placeholder="20 nov, fri, in 10 days"
        autoComplete="off"
        onChange={(event) => {
          setText(event.target.value);
          setSaid(undefined);
          give(undefined);
          void read(event.target.value);
        }}
      />
      {said && (
        <span
          role={said.refused ? "alert" : undefined}
          className={`text-note ${said.refused ? "text-rust" : "text-faint"}`}
        >
          {said.words}
        </span>
      )}
    </label>
  );
}
