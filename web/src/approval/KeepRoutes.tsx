import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { longDate } from "../parts/dates";
import { DayField } from "../parts/DayField";
import { DeedDialog } from "../parts/DeedDialog";

/** A second controller says yes to a set that waits. */
export function ConfirmRoutes({
  of,
  open,
  onClose,
}: {
  of: Schemas["KeptRoutes"];
  open: boolean;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  return (
    <DeedDialog
      open={open}
      onClose={onClose}
      title="Confirm these routes"
      deed="Confirm the routes"
      run={async () => {
        await call(api.POST("/api/routes/{id}/confirm", { params: { path: { id: of.id } } }));
        await queries.invalidateQueries();
        toast(`Confirmed: in force from ${longDate(of.from)}.`);
      }}
    >
      <p>
        {of.madeBy} made them: “{of.note}”. Batches sent from {longDate(of.from)} on take them.
      </p>
    </DeedDialog>
  );
}

/** A new set, in force from a later day, that waits for a second controller. */
export function KeepRoutes({
  content,
  earliest,
  warnings,
  open,
  onClose,
  onKept,
}: {
  content: Schemas["PolicyContent"];
  /** The first day it can be in force. */
  earliest: string;
  warnings: string[];
  open: boolean;
  onClose: () => void;
  onKept: () => void;
}) {
  const queries = useQueryClient();
  const [from, setFrom] = useState(earliest);
  return (
    <DeedDialog
      open={open}
      onClose={onClose}
      title="Keep these routes"
      deed="Keep the routes"
      reason="Why they change"
      run={async (note) => {
        await call(api.POST("/api/routes", { body: { from, note, content } }));
        onKept();
        await queries.invalidateQueries();
        toast("Kept. They wait for a second controller; until then the routes before them stay in force.");
      }}
    >
      <DayField
        label="In force from, tomorrow at the earliest"
        value={from}
        onDay={(day) => setFrom(day ?? "")}
      />
      <p className="text-faint mt-2">
        A second controller confirms them before that day begins; you do not confirm your own.
      </p>
      {warnings.map((words) => (
        <p key={words} className="callout text-brass mt-2">
          {words}
        </p>
      ))}
    </DeedDialog>
  );
}
