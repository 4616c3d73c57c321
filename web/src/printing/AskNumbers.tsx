import { useWatch } from "react-hook-form";
import { api, call, type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { ChoiceEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";

interface Asked {
  batch: number;
  printing: Schemas["PrintingView"];
  /** The serial number of one's own turn. */
  turn: number;
  printer: Schemas["PrinterView"];
  /** Which payments; none for all. */
  claims: number[];
  byDelivery: boolean;
  /** How many checks, in words. */
  what: string;
  onClose: () => void;
  onPrinted: (next: Schemas["PrintingView"]) => Promise<void>;
}

const FAULTS = [
  { value: "NONE", text: "all goes well" },
  { value: "JAM", text: "jam: one sheet torn, the rest blank" },
  { value: "SMEAR", text: "one sheet smeared" },
  { value: "OUT_OF_PAPER", text: "out of paper: the rest blank" },
];

/** The first number in the tray, then the numbers and the paper in one deed. */
export function AskNumbers({ open, ...asked }: Asked & { open: boolean }) {
  return (
    <Dialog
      open={open}
      onClose={asked.onClose}
      title={`Print ${asked.what}${asked.claims.length > 0 ? "" : `, ${asked.printing.toNumberAmount}`}, on ${asked.printer.name}`}
    >
      <Numbers {...asked} />
    </Dialog>
  );
}

function Numbers({ batch, printing, turn, printer, claims, byDelivery, what, onClose, onPrinted }: Asked) {
  const account = { params: { path: { account: printing.account } } };
  const form = useKeptForm(
    `numbers ${batch}`,
    { firstNumber: "", reason: "", fault: "NONE", sheet: "2" },
    async ({ firstNumber, reason, fault, sheet }) => {
      if (fault !== "NONE" && printer.kind === "STAND_IN")
        await call(
          api.POST("/api/bank-accounts/{account}/stand-in-printer", {
            ...account,
            body: { fault: fault as "JAM" | "SMEAR" | "OUT_OF_PAPER", sheet: Number(sheet) },
          }),
        );
      return call(
        api.POST("/api/batches/{id}/print", {
          params: { path: { id: batch } },
          body: {
            turn,
            firstNumber: Number(firstNumber.trim()),
            reason,
            printer: printer.id,
            claims,
            byDelivery,
          },
        }),
      );
    },
    {
      // the number is read from the tray each time
      secret: ["firstNumber"],
      done: async (next) => {
        onClose();
        await onPrinted(next);
      },
    },
  );
  const first = useWatch({ control: form.control, name: "firstNumber" }).trim();
  const typed = Number(first);
  const ahead = Number.isInteger(typed) && typed > printing.nextNumber;
  return (
    <Form
      form={form}
      label="Numbers"
      deed={`${printer.kind === "OWN" ? `Take numbers for ${what}` : `Print ${what}`}${first ? ` from ${first}` : ""}`}
      onClose={onClose}
      className="gap-3"
    >
      {printing.loading && (
        <p className="callout">
          Load <b>{printing.loading}</b>, and take it out again afterwards.
        </p>
      )}
      {printing.foretold && <p className="text-faint">{printing.foretold}</p>}
      <Entry
        name="firstNumber"
        label={
          <>
            First number in the tray; the next free one is <b className="font-mono">{printing.nextNumber}</b>
          </>
        }
        inputMode="numeric"
        pattern="\s*[0-9]{1,12}\s*"
        required
        autoFocus
        look="font-mono text-lg"
      />
      {printer.kind === "STAND_IN" && (
        <details className="text-faint">
          <summary>The printer here is a stand-in. Let it go wrong</summary>
          <div className="mt-2 flex items-end gap-2">
            <ChoiceEntry name="fault" label="Fault" choices={FAULTS} small />
            <Entry name="sheet" label="At sheet" inputMode="numeric" small look="w-16" />
          </div>
        </details>
      )}
      {printer.kind === "OWN" && (
        <p className="text-faint">The numbers are taken first; then the pages open for your own printer.</p>
      )}
      {ahead && (
        <Entry
          name="reason"
          label={`Why the numbers ${printing.nextNumber} to ${typed - 1} are skipped`}
          rows={2}
          maxLength={500}
        />
      )}
    </Form>
  );
}
