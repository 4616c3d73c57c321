import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { TrailFold } from "../audit/TrailOf";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { DayEntry, Entry, Form } from "../parts/Form";
import { Loaded } from "../parts/Loaded";
import { useKeptForm } from "../parts/useKeptForm";
import { Channel } from "./Channel";
import { Holidays } from "./Holidays";
import { PositivePay } from "./PositivePay";
import { Ways } from "./Ways";

export type Account = Schemas["AccountPage"];

/** Asks for an account again, and for everything that shows it. */
export function useAgain() {
  const queries = useQueryClient();
  return () => queries.invalidateQueries();
}

/** One bank account: what is known of it, its series and ways to pay, its holidays, and whether the bank is told. */
export function BankAccountPage() {
  const id = Number(useParams().id);
  const account = useQuery({
    queryKey: ["bank-account", id],
    queryFn: () => call(api.GET("/api/bank-accounts/{id}", { params: { path: { id } } })),
  });
  return <Loaded query={account}>{(data) => <Page key={id} account={data} />}</Loaded>;
}

function Page({ account }: { account: Account }) {
  return (
    <Station
      title={account.name}
      sentence={
        <>
          <b>{account.name}</b> at {account.bankName},{" "}
          <span className="font-mono text-base">{account.routingNumber}</span> account{" "}
          <span className="font-mono text-base">{account.accountNumber}</span>, in {account.currency}; its
          cash is {account.cash}.
        </>
      }
      answer={
        <>
          <Figure value={account.floor}>is always kept</Figure>
          <Figure value={account.ways.length}>
            {account.ways.length === 1 ? "way to pay" : "ways to pay"}
          </Figure>
          <span>{account.layout ? `positive pay: ${account.layout}` : "no positive pay"}</span>
          {account.closedOn && <span className="text-rust">closed on {longDate(account.closedOn)}</span>}
        </>
      }
      list={
        <div className="min-h-0 flex-1 overflow-auto px-5 py-4" tabIndex={0} data-list>
          <Ways account={account} />
          <h2 className="mt-6 mb-2 text-base font-bold">The account</h2>
          <Facts account={account} />
        </div>
      }
      slip={
        <div className="flex flex-col gap-5">
          <PositivePay account={account} />
          <Channel account={account} />
          <Holidays account={account} />
          {account.maySet && !account.closedOn && <Closing account={account} />}
          <TrailFold key={account.version} subject={`bank account ${account.id}`} name={account.name} />
        </div>
      }
    />
  );
}

function Facts({ account }: { account: Account }) {
  const again = useAgain();
  const form = useKeptForm(
    `bank account ${account.id}`,
    {
      name: account.name,
      bankName: account.bankName,
      floor: account.floor,
      smallest: account.smallest,
      thisRun: account.thisRun ?? "",
      nextRun: account.nextRun ?? "",
    },
    (typed) =>
      call(
        api.POST("/api/bank-accounts/{id}", {
          params: { path: { id: account.id } },
          body: {
            ...typed,
            thisRun: typed.thisRun || undefined,
            nextRun: typed.nextRun || undefined,
            version: account.version,
          },
        }),
      ),
    { done: again, failed: again, said: () => `${account.name} is as you typed it.` },
  );
  return (
    <div className="max-w-xl">
      <Form
        form={form}
        label="The account"
        deed="Change the account"
        leave="Leave it as it was"
        readOnly={!account.mayChange || Boolean(account.closedOn)}
      >
        <div className="grid grid-cols-2 gap-4 max-[640px]:grid-cols-1">
          <Entry name="name" label="What everybody calls it" />
          <Entry name="bankName" label="The bank, as it stands on the check" />
          <Entry name="floor" label="Cash that is always kept" inputMode="decimal" look="text-right" />
          <Entry name="smallest" label="Smallest payment; 0 for any" inputMode="decimal" look="text-right" />
          <DayEntry name="thisRun" label="Check date of this run" />
          <DayEntry name="nextRun" label="Check date of the next run" />
        </div>
      </Form>
    </div>
  );
}

function Closing({ account }: { account: Account }) {
  const again = useAgain();
  const [asking, setAsking] = useState(false);
  return (
    <section aria-label="Closing">
      <h2 className="mb-1 text-base font-bold">Close it</h2>
      {account.inUse ? (
        <p className="text-faint">It cannot be closed yet: {account.inUse}.</p>
      ) : (
        <Button onClick={() => setAsking(true)}>Close {account.name}…</Button>
      )}
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`Close ${account.name}`}
        deed={`Close ${account.name}`}
        grave
        reason="Why it is closed, or what took its place"
        run={async (reason) => {
          await call(
            api.POST("/api/bank-accounts/{id}/close", {
              params: { path: { id: account.id } },
              body: { reason },
            }),
          );
          await again();
        }}
      >
        <p>Nothing is paid from it any more, and it cannot be opened again. Its register and files stay.</p>
      </DeedDialog>
    </section>
  );
}
