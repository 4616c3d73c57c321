import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { shortDate } from "../parts/dates";
import { ChoiceEntry, DayEntry, Entry, Form } from "../parts/Form";
import { Loaded } from "../parts/Loaded";
import { useKeptForm } from "../parts/useKeptForm";

/** A check paid once more: what it would be, and the chain it stands in. */
export function ReissuePart({ payment, name }: { payment: number; name: string }) {
  const [asking, setAsking] = useState(false);
  const close = () => setAsking(false);
  return (
    <>
      <Button className="self-start" onClick={() => setAsking(true)}>
        Reissue…
      </Button>
      <Dialog open={asking} onClose={close} title={`Pay check ${name} once more`}>
        <Ask payment={payment} name={name} close={close} />
      </Dialog>
    </>
  );
}

function Ask({ payment, name, close }: { payment: number; name: string; close: () => void }) {
  const choices = useQuery({
    queryKey: ["reissue", payment],
    queryFn: () => call(api.GET("/api/payments/{id}/reissue", { params: { path: { id: payment } } })),
  });
  return (
    <Loaded query={choices}>
      {(data) => <AskForm payment={payment} name={name} close={close} choices={data} />}
    </Loaded>
  );
}

function AskForm({
  payment,
  name,
  close,
  choices,
}: {
  payment: number;
  name: string;
  close: () => void;
  choices: Schemas["ReissueChoices"];
}) {
  const { today } = useSession();
  const queries = useQueryClient();
  const form = useKeptForm(
    `reissue ${payment}`,
    {
      checkDate: today,
      remitTo: String(choices.addresses[0]?.id ?? ""),
      way: String(choices.ways[0]?.id ?? ""),
      reason: "",
    },
    async (typed) => {
      const made = await call(
        api.POST("/api/payments/{id}/reissue", {
          params: { path: { id: payment } },
          body: {
            checkDate: typed.checkDate,
            remitTo: Number(typed.remitTo) || undefined,
            way: Number(typed.way) || undefined,
            reason: typed.reason,
          },
        }),
      );
      await queries.invalidateQueries();
      toast(`Check ${name} is stopped, and its reissue waits for approval as batch ${made.batch}.`);
    },
    { done: close },
  );
  return (
    <Form
      form={form}
      label="How it is paid once more"
      deed={`Stop check ${name} and ask for approval`}
      onClose={close}
    >
      <p>
        The check is stopped at once. The new one keeps its amount and discount, goes through approval, and is
        printed; posting it voids check {name} in the same step. If approval is refused, the check stays
        stopped.
      </p>
      <DayEntry name="checkDate" label="New check date" />
      <ChoiceEntry name="remitTo" label="It goes to" choices={choices.addresses.map(choice)} />
      <ChoiceEntry name="way" label="It is paid by" choices={choices.ways.map(choice)} />
      <Entry name="reason" label="Why it is paid once more" rows={2} maxLength={200} />
    </Form>
  );
}

const choice = (one: Schemas["ReissueChoice"]) => ({ value: String(one.id), text: one.words });

/** The checks that were paid instead of each other, from the first to the last. */
export function Chain({ chain }: { chain: Schemas["ChainView"][] }) {
  if (chain.length === 0) return null;
  return (
    <section aria-label="Paid instead of each other">
      <h3 className="text-faint mb-1 text-note font-semibold">Paid instead of each other</h3>
      <ol>
        {chain.map((one) => (
          <li key={one.name} className="border-hair flex justify-between gap-3 border-t py-1 text-note">
            {one.here || !one.check ? (
              <b>{one.name}</b>
            ) : (
              <Link className="go" to={`/register?check=${one.check}`}>
                {one.name}
              </Link>
            )}
            <span className="text-faint">
              {one.state}, {shortDate(one.checkDate)}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
