import type { ButtonHTMLAttributes } from "react";

const LOOKS = {
  deed: "bg-harbour text-onharbour font-bold border-harbour",
  grave: "bg-rust text-sheet font-bold border-rust",
  plain: "bg-sheet text-harbour border-faint",
  bare: "text-harbour border-transparent underline underline-offset-2",
};

/** A button that says what it does; `grave` for what cannot be taken back. */
export function Button({
  look = "plain",
  className = "",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: keyof typeof LOOKS }) {
  return (
    <button
      type="button"
      className={`min-h-8 border px-3 py-1 whitespace-nowrap disabled:opacity-50 ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}
