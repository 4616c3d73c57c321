import type { ReactNode } from "react";

/** One input under its label; `small` beside denser text. */
export function Field({
  label,
  small = false,
  className = "",
  children,
}: {
  label: ReactNode;
  small?: boolean;
  className?: string;
  children: ReactNode;
}) {
  return (
    <label className={`flex flex-col gap-1 ${className}`}>
      <span className={`text-faint ${small ? "text-[13px]" : ""}`}>{label}</span>
      {children}
    </label>
  );
}
