import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { toast } from "sonner";
import { api, call } from "../api/client";
import { useSession } from "../frame/session";
import { Dialog } from "../parts/Dialog";
import { DayEntry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";

/** Takes back an offset, or what a prepayment was matched with, on a day of one's choice. */
export function OffsetBack({ offset, by }: { offset: number; by: string }) {
  const { roles } = useSession();
  const [open, setOpen] = useState(false);
  if (!roles.includes("CLERK")) return null;
  return (
    <>
      <button type="button" className="go min-h-6" onClick={() => setOpen(true)}>
        take back…
      </button>
      <Dialog open={open} onClose={() => setOpen(false)} title={`Take back ${by}`}>
        <TakeBack offset={offset} close={() => setOpen(false)} />
      </Dialog>
    </>
  );
}

function TakeBack({ offset, close }: { offset: number; close: () => void }) {
  const { today } = useSession();
  const queries = useQueryClient();
  const form = useKeptForm(`offset back ${offset}`, { on: today }, async ({ on }) => {
    await call(api.POST("/api/offsets/{id}/undo", { params: { path: { id: offset } }, body: { on } }));
    await queries.invalidateQueries();
    toast("Taken back: both sides are open again.");
    close();
  });
  return (
    <Form form={form} label="Take it back" deed="Take it back" look="grave" onClose={close}>
      <p>Both sides are open again from that day on, and the entry is reversed.</p>
      <DayEntry name="on" label="Reversed on" />
    </Form>
  );
}
