import type { ButtonHTMLAttributes } from "react";

const LOOKS = {
  deed: "bg-harbour text-onharbour font-bold border-harbour px-3",
  grave: "bg-rust text-sheet font-bold border-rust px-3",
  plain: "bg-sheet text-harbour border-faint px-3",
  // stands in line with the text
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
      className={`min-h-8 border py-1 whitespace-nowrap disabled:opacity-50 ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}
