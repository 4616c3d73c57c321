import { createContext, useContext, useId, type ReactNode } from "react";
import { useController, useWatch, type Path } from "react-hook-form";
import { Button } from "./Button";
import { DayField } from "./DayField";
import { Field } from "./Field";
import { Refusal } from "./Refusal";
import type { KeptForm, Typed } from "./useKeptForm";

const Context = createContext<KeptForm<Typed> | undefined>(undefined);

export function useEntryForm(): KeptForm<Typed> {
  const form = useContext(Context);
  if (!form) throw new Error("an entry stands in a form");
  return form;
}

/** A form with one deed; `leave` names the way back, which is there while something is typed. */
export function Form<T extends Typed>({
  form,
  label,
  deed,
  look = "deed",
  leave,
  onClose,
  readOnly = false,
  className = "gap-4",
  children,
}: {
  form: KeptForm<T>;
  label: string;
  deed: string;
  /** Grave for what cannot be taken back, plain for a question that changes nothing. */
  look?: "deed" | "grave" | "plain";
  leave?: string;
  /** In a dialog: how it is closed without doing anything. */
  onClose?: () => void;
  readOnly?: boolean;
  className?: string;
  children: ReactNode;
}) {
  return (
    <Context value={form as unknown as KeptForm<Typed>}>
      <form
        aria-label={label}
        onSubmit={(event) => {
          event.preventDefault();
          // why it is refused stands in the form
          void form.deed.must(form.getValues()).catch(() => undefined);
        }}
      >
        <fieldset disabled={readOnly} className={`flex min-w-0 flex-col ${className}`}>
          {children}
        </fieldset>
        <Refusal deed={{ refused: form.elsewhere, leave: form.deed.leave }} />
        {!readOnly && (
          <div className={`mt-4 flex items-center gap-3 ${onClose ? "justify-end" : ""}`}>
            {onClose && (
              <Button
                onClick={() => {
                  form.leave();
                  onClose();
                }}
              >
                Not now
              </Button>
            )}
            <Button type="submit" look={look} disabled={form.deed.busy || (leave !== undefined && form.same)}>
              {deed}
            </Button>
            {leave && !form.same && <Button onClick={form.leave}>{leave}</Button>}
          </div>
        )}
      </form>
    </Context>
  );
}

/** One line of text, or several with `rows`. */
export function Entry({
  name,
  label,
  rows,
  small = false,
  className = "",
  ...input
}: {
  name: string;
  label: ReactNode;
  rows?: number;
  small?: boolean;
  className?: string;
  autoFocus?: boolean;
  inputMode?: "numeric" | "decimal" | "email";
  placeholder?: string;
  autoComplete?: string;
  type?: "password";
  list?: string;
  maxLength?: number;
  required?: boolean;
  pattern?: string;
  /** The class of the input, where the usual width or face will not do. */
  look?: string;
}) {
  const form = useEntryForm();
  const { look, ...rest } = input;
  const field = form.register(name as Path<Typed>, { onChange: form.keep });
  const finding = form.formState.errors[name]?.message;
  return (
    <Field label={label} small={small} className={className} finding={finding}>
      {rows ? (
        <textarea
          rows={rows}
          className={look}
          aria-invalid={finding ? true : undefined}
          {...rest}
          {...field}
        />
      ) : (
        <input
          className={look}
          autoComplete="off"
          aria-invalid={finding ? true : undefined}
          {...rest}
          {...field}
        />
      )}
    </Field>
  );
}

/** One of a few. */
export function ChoiceEntry({
  name,
  label,
  choices,
  small = false,
  className = "",
}: {
  name: string;
  label: ReactNode;
  choices: { value: string; text: string }[];
  small?: boolean;
  className?: string;
}) {
  const form = useEntryForm();
  // the choices may come after what is chosen; a list that keeps its value itself would lose it
  const { field } = useController({ control: form.control, name: name as Path<Typed> });
  return (
    <Field label={label} small={small} className={className} finding={form.formState.errors[name]?.message}>
      <select
        {...field}
        onChange={(event) => {
          field.onChange(event);
          form.keep();
        }}
      >
        {choices.map((choice) => (
          <option key={choice.value} value={choice.value}>
            {choice.text}
          </option>
        ))}
      </select>
    </Field>
  );
}

/** Any of a few, kept as their values with spaces between. */
export function ChecksEntry({
  name,
  label,
  choices,
  disabled = false,
}: {
  name: string;
  label?: ReactNode;
  choices: { value: string; text: ReactNode }[];
  disabled?: boolean;
}) {
  const form = useEntryForm();
  const given = useWatch({ control: form.control, name: name as Path<Typed> })
    .split(" ")
    .filter(Boolean);
  const finding = form.formState.errors[name]?.message;
  return (
    <fieldset disabled={disabled} className="flex flex-col">
      {label && <legend className="text-faint text-note">{label}</legend>}
      {choices.map(({ value, text }) => (
        <label key={value} className="flex min-h-7 items-center gap-2">
          <input
            type="checkbox"
            className="min-h-0"
            checked={given.includes(value)}
            onChange={(event) => {
              const next = event.target.checked ? [...given, value] : given.filter((one) => one !== value);
              form.setValue(name as Path<Typed>, next.join(" "));
              form.keep();
            }}
          />
          {text}
        </label>
      ))}
      {finding && (
        <span role="alert" className="text-rust text-note">
          {finding}
        </span>
      )}
    </fieldset>
  );
}

/** A day in words; kept as a date, or empty. */
export function DayEntry({ name, label }: { name: string; label: string }) {
  const form = useEntryForm();
  const { field } = useController({ name: name as Path<Typed>, control: form.control });
  const finding = form.formState.errors[name]?.message;
  const id = useId();
  return (
    <div className="flex flex-col gap-1">
      <DayField
        label={label}
        name={id}
        value={field.value}
        onDay={(day) => {
          field.onChange(day ?? "");
          form.keep();
        }}
      />
      {finding && (
        <span role="alert" className="text-rust text-note">
          {finding}
        </span>
      )}
    </div>
  );
}
