import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { Dialog } from "../parts/Dialog";
import { ChoiceEntry, DayEntry, Entry, Form } from "../parts/Form";
import { writeRanges } from "../parts/ranges";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";

type Check = Schemas["StaleCheck"];

/** What can be done about the checks that are meant: ask their payees, write down what they said, void them. */
export function ContactDeeds({ checks }: { checks: Check[] }) {
  const { roles, today } = useSession();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [asking, setAsking] = useState<"note" | "letter" | "mail">();
  const close = () => setAsking(undefined);
  const payments = checks.map((check) => check.payment);
  const what = checks.length === 1 ? `check ${checks[0]!.name}` : `${checks.length} checks`;
  const done = () => queries.invalidateQueries();
  const letters = `/api/stale/letters?${payments.map((id) => `payments=${id}`).join("&")}`;
  const mailing = useDeed(() => call(api.POST("/api/stale/mail", { body: { payments } })), {
    done,
    said: ({ sent, without }) =>
      `${sent} ${sent === 1 ? "mail waits" : "mails wait"} to be sent.` +
      (without.length ? ` Not to ${without.join(", ")}: no address, or not printed here.` : ""),
  });
  const none = checks.length === 0;
  return (
    <>
      <Button disabled={none} onClick={() => setAsking("letter")}>
        Letters…
      </Button>
      <Button disabled={none} onClick={() => setAsking("mail")}>
        Mail…
      </Button>
      <Button disabled={none} onClick={() => setAsking("note")}>
        Write down…
      </Button>
      {roles.includes("CLERK") && (
        <Button disabled={none} onClick={() => navigate(`/undo?payments=${writeRanges(payments)}`)}>
          Void…
        </Button>
      )}
      {roles.includes("CLERK") && (
        <Button
          disabled={none}
          onClick={() => navigate(`/undo?payments=${writeRanges(payments)}&unclaimed=1`)}
        >
          Hand over as unclaimed…
        </Button>
      )}
      <DeedDialog
        open={asking === "letter"}
        onClose={close}
        title={`Letters about ${what}`}
        deed="Write down that they were written"
        run={async () => {
          await call(
            api.POST("/api/stale/contacts", { body: { payments, how: "LETTER", on: today, note: "" } }),
          );
          await done();
        }}
      >
        <p>
          <a className="go" href={letters} target="_blank" rel="noreferrer">
            Open the letters
          </a>
          , print and post them; each is addressed for a window.
        </p>
      </DeedDialog>
      <DeedDialog
        open={asking === "mail"}
        onClose={close}
        title={`Mail about ${what}`}
        deed={`Mail ${checks.length === 1 ? "the payee" : "the payees"}`}
        run={async () => mailing.must()}
      >
        <p>
          The letter goes to each payee with a mail address, with the list of what the check paid.
          {checks.some((check) => !check.reachable) &&
            ` ${checks.filter((check) => !check.reachable).length} of them have none and are not told.`}
        </p>
      </DeedDialog>
      <Dialog open={asking === "note"} onClose={close} title={`Write down about ${what}`}>
        <Noted payments={payments} close={close} />
      </Dialog>
    </>
  );
}

function Noted({ payments, close }: { payments: number[]; close: () => void }) {
  const { today } = useSession();
  const queries = useQueryClient();
  const form = useKeptForm(
    `contact ${payments.join(".")}`,
    { how: "CALL", on: today, note: "" },
    (typed) =>
      call(
        api.POST("/api/stale/contacts", {
          body: {
            payments,
            how: typed.how as Schemas["ContactNoted"]["how"],
            on: typed.on,
            note: typed.note,
          },
        }),
      ),
    {
      done: async () => {
        await queries.invalidateQueries();
        close();
      },
      said: () => "Written down.",
    },
  );
  return (
    <Form form={form} label="Write down" deed="Write it down" onClose={close}>
      <ChoiceEntry
        name="how"
        label="How"
        choices={[
          { value: "CALL", text: "telephone call" },
          { value: "LETTER", text: "letter" },
          { value: "NOTE", text: "note" },
        ]}
      />
      <DayEntry name="on" label="On" />
      <Entry name="note" label="What was asked, or what the payee said" rows={2} maxLength={300} />
    </Form>
  );
}
