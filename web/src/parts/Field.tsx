import type { ReactNode } from "react";

/** One input under its label; `small` beside denser text; `finding` says what is wrong with it. */
export function Field({
  label,
  small = false,
  className = "",
  finding,
  children,
}: {
  label: ReactNode;
  small?: boolean;
  className?: string;
  finding?: string;
  children: ReactNode;
}) {
  return (
    <label className={`flex flex-col gap-1 ${className}`}>
      <span className={`text-faint ${small ? "text-note" : ""}`}>{label}</span>
      {children}
      {finding && (
        <span role="alert" className="text-rust text-note">
          {finding}
        </span>
      )}
    </label>
  );
}
