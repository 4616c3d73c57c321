import type { ReactNode } from "react";
import { useId } from "react";
import { Button } from "./Button";
import { Dialog } from "./Dialog";
import { Refusal } from "./Refusal";
import { useDeed } from "./useDeed";
import { useKept } from "./useKept";

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
  const [why, setWhy, forget] = useKept<string>(`why ${title}`, "");
  const id = useId();
  const doing = useDeed((reason: string) => run(reason), {
    done: () => {
      forget();
      if (!stays) onClose();
    },
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        // why it is refused stands in the dialog
        void doing.must(why).catch(() => undefined);
      }}
    >
      {content}
      {reason && (
        <label className="mt-3 flex flex-col gap-1" htmlFor={id}>
          <span className="text-faint">{reason}</span>
          <textarea
            id={id}
            rows={2}
            value={why}
            maxLength={500}
            onChange={(event) => setWhy(event.target.value)}
          />
        </label>
      )}
      <Refusal deed={doing} />
      <div className="mt-4 flex justify-end gap-2">
        <Button
          onClick={() => {
            forget();
            onClose();
          }}
        >
          Not now
        </Button>
        <Button type="submit" look={grave ? "grave" : "deed"} disabled={doing.busy}>
          {deed}
        </Button>
      </div>
    </form>
  );
}
