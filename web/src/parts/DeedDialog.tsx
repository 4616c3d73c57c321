import type { ReactNode } from "react";
import { Dialog } from "./Dialog";
import { Entry, Form } from "./Form";
import { useKeptForm } from "./useKeptForm";

/**
 * The one question before a deed. The button is named after the deed; a refusal stays in the dialog with what was typed.
 */
export function DeedDialog({
  open,
  onClose,
  title,
  deed,
  grave = false,
  run,
  reason,
  wide = false,
  stays = false,
  children,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  deed: string;
  grave?: boolean;
  /** Does it; throws what was refused. */
  run: (reason: string) => Promise<void>;
  /** The label of the reason where one is asked for. */
  reason?: string;
  wide?: boolean;
  /** True where the answer is read in the dialog, which is closed by hand. */
  stays?: boolean;
  children?: ReactNode;
}) {
  return (
    <Dialog open={open} onClose={onClose} title={title} wide={wide}>
      <Body
        deed={deed}
        grave={grave}
        run={run}
        reason={reason}
        stays={stays}
        title={title}
        onClose={onClose}
        content={children}
      />
    </Dialog>
  );
}

function Body({
  deed,
  grave,
  run,
  reason,
  stays,
  title,
  onClose,
  content,
}: {
  title: string;
  deed: string;
  grave: boolean;
  run: (reason: string) => Promise<void>;
  reason?: string;
  stays: boolean;
  onClose: () => void;
  content: ReactNode;
}) {
  const form = useKeptForm(`asked ${title}`, { why: "" }, ({ why }) => run(why), {
    done: () => {
      if (!stays) onClose();
    },
  });
  return (
    <Form
      form={form}
      label={title}
      deed={deed}
      look={grave ? "grave" : "deed"}
      onClose={onClose}
      className=""
    >
      {content}
      {reason && <Entry name="why" label={reason} rows={2} maxLength={500} className="mt-3" />}
    </Form>
  );
}
