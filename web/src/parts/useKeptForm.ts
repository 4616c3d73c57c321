import { useEffect, useState } from "react";
import { useForm, type Path, type UseFormReturn } from "react-hook-form";
import { useDeed, type Deed, type DeedOptions } from "./useDeed";
import { useKept } from "./useKept";

/** What is typed into a form, all of it text: what it means the server says. */
export type Typed = Record<string, string>;

export interface KeptForm<T extends Typed> extends UseFormReturn<T> {
  deed: Deed<T>;
  /** True while nothing is typed that is not there already. */
  same: boolean;
  /** Keeps what is typed, also what no input holds. */
  keep: () => void;
  /** Gives back what stood there before anything was typed. */
  leave: () => void;
  /** What was refused without a field to show it at. */
  elsewhere: Deed<T>["refused"];
}

/**
 * A form whose text is kept in this tab until its deed is done: neither a refusal nor a step elsewhere loses it. What the
 * server finds wrong stands at its field.
 *
 * @param key names the thing it is typed for
 * @param given what stands there before anything is typed
 * @param secret fields that are kept no longer than the form is open, such as a password
 * @param stays true where what is typed stands there still when it is done, to be asked again with a change
 */
export function useKeptForm<T extends Typed, A>(
  key: string,
  given: T,
  does: (typed: T) => Promise<A>,
  {
    secret = [],
    stays = false,
    ...options
  }: DeedOptions<T, A> & { secret?: (keyof T & string)[]; stays?: boolean } = {},
): KeptForm<T> {
  const [kept, keepTyped, forgetTyped] = useKept<T>(key, given);
  const [hidden, hide] = useState<Partial<T>>({});
  const typed: T = { ...kept, ...hidden };
  const keep = (values: T) => {
    hide(Object.fromEntries(secret.map((name) => [name, values[name]])) as Partial<T>);
    keepTyped({ ...values, ...Object.fromEntries(secret.map((name) => [name, given[name]])) });
  };
  const forget = () => {
    hide({});
    forgetTyped();
  };
  const form = useForm<T>({ values: typed, resetOptions: { keepErrors: true } });
  const deed = useDeed<T, A>(does, {
    ...options,
    done: async (answer, asked) => {
      if (!stays) forget();
      await options.done?.(answer, asked);
    },
  });
  const { refused } = deed;
  const { setError, clearErrors } = form;
  useEffect(() => {
    clearErrors();
    Object.entries(refused?.fields ?? {}).forEach(([field, message]) =>
      setError(field as Path<T>, { message }),
    );
  }, [refused, setError, clearErrors]);
  const shown = Object.keys(refused?.fields ?? {}).some((field) => field in given);
  return {
    ...form,
    deed,
    same: JSON.stringify(typed) === JSON.stringify(given),
    keep: () => keep(form.getValues()),
    leave: () => {
      forget();
      deed.leave();
    },
    elsewhere: shown ? undefined : refused,
  };
}
