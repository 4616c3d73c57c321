import { api, call, type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";

interface Of {
  batch: number;
  sheet: Schemas["SheetView"];
  onClose: () => void;
  onDone: (next: Schemas["PrintingView"]) => Promise<void>;
}

/** From a sheet on, the stock has other numbers than were reckoned with. */
export function PaperSays({ sheet, ...of }: Omit<Of, "sheet"> & { sheet: Of["sheet"] | undefined }) {
  return (
    <Dialog open={sheet !== undefined} onClose={of.onClose} title={`From sheet ${sheet?.number ?? ""} on`}>
      {sheet && <Numbers sheet={sheet} {...of} />}
    </Dialog>
  );
}

function Numbers({ batch, sheet, onClose, onDone }: Of) {
  const form = useKeptForm(
    `paper says ${sheet.document}`,
    { says: "", why: "" },
    ({ says, why }) =>
      call(
        api.POST("/api/batches/{id}/paper-says", {
          params: { path: { id: batch } },
          body: { document: sheet.document, says: Number(says.trim()), why },
        }),
      ),
    {
      done: async (next) => {
        onClose();
        await onDone(next);
      },
    },
  );
  return (
    <Form
      form={form}
      label="Number on the paper"
      deed="Renumber the rest"
      onClose={onClose}
      className="gap-3"
    >
      <p>
        The sheet to <b>{sheet.payee}</b> was reckoned as <b className="font-mono">{sheet.number}</b>. It and
        all that follow it in its run get the numbers that are on their paper; the numbers passed over are
        spoiled.
      </p>
      <Entry
        name="says"
        label="The number on its paper"
        inputMode="numeric"
        pattern="\s*[0-9]{1,12}\s*"
        required
        autoFocus
        look="font-mono text-lg"
      />
      <Entry name="why" label="How it came about" rows={2} maxLength={200} />
    </Form>
  );
}
