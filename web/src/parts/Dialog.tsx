import { Dialog as Primitive } from "radix-ui";
import type { ReactNode } from "react";

/** A sheet over the page that asks one thing; what is inside is there only while it is open. */
export function Dialog({
  open,
  onClose,
  title,
  wide = false,
  children,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <Primitive.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Primitive.Portal>
        <Primitive.Overlay className="bg-scrim fixed inset-0 z-30" />
        <Primitive.Content
          aria-describedby={undefined}
          className={`bg-sheet border-ink fixed top-1/2 left-1/2 z-40 max-h-[92vh] w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-auto border p-5 ${wide ? "max-w-3xl" : "max-w-xl"}`}
        >
          <Primitive.Title className="mb-3 text-lg font-bold">{title}</Primitive.Title>
          {open && children}
        </Primitive.Content>
      </Primitive.Portal>
    </Primitive.Root>
  );
}
