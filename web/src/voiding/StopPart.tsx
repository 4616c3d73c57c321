import { useQueryClient } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { toast } from "sonner";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { Dialog } from "../parts/Dialog";
import { DayEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";

/** The stop of a check: asked, confirmed by the bank, lifted by two. */
export function StopPart({
  payment,
  name,
  stop,
  undoing,
  children,
}: {
  payment: number;
  name: string;
  stop?: Schemas["StopView"];
  /** What a second person is asked about it already. */
  undoing?: number;
  /** What else is done with it as long as nobody is asked about it. */
  children?: ReactNode;
}) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState<"stop" | "confirm" | "lift">();
  const close = () => setAsking(undefined);
  const done = async (words: string) => {
    await queries.invalidateQueries();
    toast(words);
  };
  return (
    <section aria-label="Stop" className="border-hair flex flex-col gap-2 border-t pt-3">
      {stop && (
        <p className={stop.look ? "callout" : ""}>
          <span className="inline-block first-letter:uppercase">{stop.words}</span>: “{stop.why}”.
        </p>
      )}
      {undoing && (
        <p className="callout">
          A second person is asked about this check.{" "}
          <Link className="go" to={`/undo/${undoing}`}>
            Look at what is asked
          </Link>
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        {!stop && <Button onClick={() => setAsking("stop")}>Stop payment…</Button>}
        {stop && (
          <Button onClick={() => setAsking("confirm")}>
            {stop.confirmed ? "The bank confirmed it anew…" : "The bank confirmed it…"}
          </Button>
        )}
        {stop && !undoing && <Button onClick={() => setAsking("lift")}>Lift the stop…</Button>}
        {!undoing && children}
      </div>
      <DeedDialog
        open={asking === "stop"}
        onClose={close}
        title={`Stop check ${name}`}
        deed={`Stop check ${name}`}
        reason="Why it is stopped"
        run={async (reason) => {
          await call(api.POST("/api/stops", { body: { payments: [payment], reason } }));
          await done(`Check ${name} is stopped here. Ask the bank for it, and write down what it answers.`);
        }}
      >
        <p>
          The check stays in the ledger and its invoices stay paid. Ask the bank to stop it, then write its
          reference down here.
        </p>
      </DeedDialog>
      <Dialog open={asking === "confirm"} onClose={close} title={`What the bank said of the stop of ${name}`}>
        <Confirmed payment={payment} stop={stop} close={close} done={done} />
      </Dialog>
      <DeedDialog
        open={asking === "lift"}
        onClose={close}
        title={`Lift the stop of check ${name}`}
        deed="Ask a second person to lift it"
        reason="Why the bank may pay it after all"
        run={async (reason) => {
          await call(
            api.POST("/api/stops/{payment}/lift", { params: { path: { payment } }, body: { reason } }),
          );
          await done("Asked. The check stays stopped until a second person agrees.");
        }}
      >
        <p>Somebody who approves, and neither asked nor prepared the payment, has to agree.</p>
      </DeedDialog>
    </section>
  );
}

/** The bank's reference, the day it confirmed, and until when it keeps to it. */
function Confirmed({
  payment,
  stop,
  close,
  done,
}: {
  payment: number;
  stop?: Schemas["StopView"];
  close: () => void;
  done: (words: string) => Promise<void>;
}) {
  const { today } = useSession();
  const form = useKeptForm(
    `stop confirmed ${payment}`,
    { on: today, reference: stop?.reference ?? "", until: stop?.expires ?? "" },
    async (typed) => {
      await call(
        api.POST("/api/stops/{payment}/confirm", {
          params: { path: { payment } },
          body: { on: typed.on, reference: typed.reference, until: typed.until || undefined },
        }),
      );
      await done("Written down: the bank confirmed the stop.");
    },
    { done: close },
  );
  return (
    <Form form={form} label="What the bank said" deed="Write it down" onClose={close}>
      <Entry name="reference" label="The bank's reference" maxLength={60} autoFocus />
      <DayEntry name="on" label="Confirmed on" />
      <DayEntry name="until" label="Until, empty where it never ends" />
    </Form>
  );
}
