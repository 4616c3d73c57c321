import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call } from "../api/client";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { DeedDialog } from "../parts/DeedDialog";
import { ChoiceEntry, DayEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import { useAgain, type Account } from "./BankAccountPage";

/** Whether the bank is told of every check, and in which layout. */
export function PositivePay({ account }: { account: Account }) {
  const again = useAgain();
  const [asking, setAsking] = useState<"begin" | "end" | "hour">();
  const close = () => setAsking(undefined);
  const may = account.maySet && !account.closedOn;
  return (
    <section aria-label="Positive pay">
      <h2 className="mb-1 text-base font-bold">Positive pay</h2>
      <p>
        {account.layout ? (
          <>
            The bank is told of every check, in the layout <b>{account.layout}</b>.
          </>
        ) : (
          <>The bank is told of nothing.</>
        )}
      </p>
      <p>
        {account.decisionHour ? (
          <>
            Until <b>{account.decisionHour}</b> the bank is told which checks it asks about it returns.
          </>
        ) : (
          <>The bank asks for no decision about single checks.</>
        )}
      </p>
      {may && (
        <div className="mt-2 flex flex-wrap gap-2">
          <Button onClick={() => setAsking("begin")}>{account.layout ? "Another layout…" : "Begin…"}</Button>
          {account.layout && <Button onClick={() => setAsking("end")}>End it…</Button>}
          <Button onClick={() => setAsking("hour")}>Hour of decisions…</Button>
        </div>
      )}
      <Dialog open={asking === "hour"} onClose={close} title={`Until when ${account.bankName} is told`}>
        <Hour account={account} onClose={close} />
      </Dialog>
      <Dialog open={asking === "begin"} onClose={close} title={`Positive pay of ${account.name}`}>
        <Begin account={account} onClose={close} />
      </Dialog>
      <DeedDialog
        open={asking === "end"}
        onClose={close}
        title={`End positive pay of ${account.name}`}
        deed="End positive pay"
        grave
        run={async () => {
          await call(
            api.POST("/api/bank-accounts/{id}/positive-pay/end", { params: { path: { id: account.id } } }),
          );
          await again();
        }}
      >
        <p>The bank is told of no check that is posted or voided from now on.</p>
      </DeedDialog>
    </section>
  );
}

function Begin({ account, onClose }: { account: Account; onClose: () => void }) {
  const again = useAgain();
  const layouts = useQuery({
    queryKey: ["bank-file-layouts"],
    queryFn: () => call(api.GET("/api/bank-file-layouts")),
  });
  const form = useKeptForm(
    `positive pay ${account.id}`,
    { layout: "", from: "" },
    (typed) =>
      call(
        api.POST("/api/bank-accounts/{id}/positive-pay", {
          params: { path: { id: account.id } },
          body: {
            layout: Number(typed.layout || layouts.data?.[0]?.id || 0),
            from: typed.from || undefined,
          },
        }),
      ),
    {
      done: async () => {
        await again();
        onClose();
      },
    },
  );
  return (
    <Form form={form} label="Positive pay" deed="Tell the bank from now on" onClose={onClose}>
      <ChoiceEntry
        name="layout"
        label="In which layout"
        choices={(layouts.data ?? []).map((one) => ({ value: String(one.id), text: one.name }))}
      />
      {account.layout && <DayEntry name="from" label="From which day; empty for today" />}
      <p className="text-faint">
        Every check posted or voided from now on waits at the station Bank. What was posted before is not
        told.
      </p>
    </Form>
  );
}

function Hour({ account, onClose }: { account: Account; onClose: () => void }) {
  const again = useAgain();
  const form = useKeptForm(
    `decision hour ${account.id}`,
    { hour: account.decisionHour },
    (typed) =>
      call(
        api.POST("/api/bank-accounts/{id}/decision-hour", {
          params: { path: { id: account.id } },
          body: { hour: typed.hour },
        }),
      ),
    {
      done: async () => {
        await again();
        onClose();
      },
    },
  );
  return (
    <Form form={form} label="Hour of decisions" deed="Keep it" onClose={onClose}>
      <Entry name="hour" label="Hour, such as 14:00; empty for none" look="w-28" maxLength={10} />
      <p className="text-faint">
        On a banking day, by the company’s clock. After it a check the bank asked about is paid; then it can
        only be asked to correct.
      </p>
    </Form>
  );
}
