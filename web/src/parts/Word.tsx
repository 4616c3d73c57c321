import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { useRef, useState } from "react";
import { DayField } from "./DayField";

/** An underlined word of a sentence; it opens its choice in place. */
export function Word({
  name,
  text,
  children,
}: {
  name: string;
  text: string;
  children: (close: () => void) => ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={`${name}: ${text}`}
        className="text-harbour border-harbour border-b-2 px-0.5 leading-6 font-bold whitespace-nowrap"
      >
        {text}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          className="bg-sheet border-faint z-20 max-h-96 min-w-56 overflow-auto border p-3"
        >
          {children(() => setOpen(false))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A word that is a day: a date, or words such as “next Friday”; `none` names the choice of no day where there is one. */
export function DayWord({
  name,
  text,
  value,
  none,
  onChange,
}: {
  name: string;
  text: string;
  value: string;
  none?: string;
  onChange: (value: string | undefined) => void;
}) {
  return (
    <Word name={name} text={text}>
      {(close) => (
        <DayForm
          name={name}
          value={value}
          none={none}
          onChange={(next) => {
            onChange(next);
            close();
          }}
        />
      )}
    </Word>
  );
}

function DayForm({
  name,
  value,
  none,
  onChange,
}: {
  name: string;
  value: string;
  none?: string;
  onChange: (value: string | undefined) => void;
}) {
  const [day, setDay] = useState<string | undefined>(value);
  // whoever types fast presses Enter before the day is read
  const wanted = useRef(false);
  return (
    <form
      className="flex w-64 flex-col gap-2"
      onInput={() => {
        wanted.current = false;
      }}
      onSubmit={(event) => {
        event.preventDefault();
        if (day) onChange(day);
        else wanted.current = true;
      }}
    >
      <DayField
        label={name}
        value={value}
        relative
        autoFocus
        onDay={(next) => {
          setDay(next);
          if (next && wanted.current) onChange(next);
        }}
      />
      <div className="flex gap-2">
        <button className="bg-harbour text-onharbour min-h-8 px-3 font-bold">Use this day</button>
        {none && (
          <button type="button" className="go min-h-8 px-2" onClick={() => onChange(undefined)}>
            {none}
          </button>
        )}
      </div>
    </form>
  );
}

/** A word that is one of a few. */
export function ChoiceWord<T extends string>({
  name,
  text,
  value,
  choices,
  onChange,
}: {
  name: string;
  text: string;
  value: T;
  choices: { value: T; text: string; detail?: string }[];
  onChange: (value: T) => void;
}) {
  return (
    <Word name={name} text={text}>
      {(close) => (
        <ul aria-label={name}>
          {choices.map((choice) => (
            <li key={choice.value}>
              <button
                type="button"
                aria-pressed={choice.value === value}
                className="hover:bg-cursor flex min-h-8 w-full items-baseline gap-2 px-2 text-left"
                onClick={() => {
                  onChange(choice.value);
                  close();
                }}
              >
                <span className="w-4">{choice.value === value ? "✓" : ""}</span>
                <span>{choice.text}</span>
                <span className="text-faint text-note">{choice.detail}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
    </Word>
  );
}
