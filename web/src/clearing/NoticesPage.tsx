import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { AccountWord } from "../bankfiles/AccountWord";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { clock, longDate, shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Dialog } from "../parts/Dialog";
import { Form } from "../parts/Form";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";

type Notice = Schemas["NoticeView"];

const KINDS: Record<Notice["kind"], string> = { RETURNED: "sent back", CHANGED: "corrected" };
const STATES: Record<string, string> = { WAITING: "waits for somebody", DONE: "done", CLOSED: "closed" };

const COLUMNS: Column<Notice>[] = [
  { key: "read", title: "Read on", width: "84px", value: (n) => n.readOn, cell: (n) => shortDate(n.readOn) },
  { key: "kind", title: "Bank", width: "84px", cell: (n) => KINDS[n.kind] },
  {
    key: "payment",
    title: "Payment",
    width: "92px",
    cell: (n) => <span className="font-mono">{n.called || n.names}</span>,
  },
  { key: "payee", title: "Payee", width: "minmax(120px,1.2fr)", cell: (n) => n.payee },
  {
    key: "amount",
    title: "Amount",
    width: "92px",
    right: true,
    words: (n) => n.amount?.text ?? "",
    cell: (n) => n.amount?.text ?? "",
  },
  {
    key: "why",
    title: "Why",
    width: "minmax(150px,1.8fr)",
    cell: (n) => `${n.code}: ${n.words}`,
  },
  {
    key: "state",
    title: "Then",
    width: "128px",
    cell: (n) => (
      <span className={n.state === "WAITING" ? "text-brass" : "text-faint"}>{STATES[n.state]}</span>
    ),
  },
];

/** What a bank says of payments by file after it took them: sent back, refused late, or to another account. */
export function NoticesPage() {
  const clerk = useSession().roles.includes("CLERK");
  const [values, change] = useAddress();
  const [reading, setReading] = useState(false);
  const accounts = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
  });
  const account = accounts.data?.find((one) => String(one.id) === values.account) ?? accounts.data?.[0];
  const notices = useQuery({
    queryKey: ["bank-notices", account?.id],
    enabled: account !== undefined,
    queryFn: () => call(api.GET("/api/bank-notices", { params: { query: { account: account!.id } } })),
  });
  const all = notices.data ?? [];
  const waiting = all.filter((one) => one.state === "WAITING").length;
  const at = all.find((one) => String(one.id) === values.at) ?? (all.length === 1 ? all[0] : undefined);
  return (
    <Station
      title="What the bank sent back"
      sentence={
        <>
          What the bank said afterwards of payments by file from{" "}
          <AccountWord
            account={account}
            accounts={accounts.data ?? []}
            onChange={(value) => change({ account: value, at: undefined })}
          />
          .
        </>
      }
      answer={
        <>
          <Figure value={waiting} look={waiting > 0 ? "text-brass" : ""}>
            {waiting === 1 ? "waits" : "wait"} for somebody
          </Figure>
          <Figure value={all.length}>in all</Figure>
        </>
      }
      list={
        <Loaded query={notices}>
          {() => (
            <Grid
              list="bank-notices"
              label="What the bank sent back"
              items={all.map((row) => ({ key: String(row.id), row }))}
              columns={COLUMNS}
              cursor={values.at}
              onCursor={(key) => change({ at: key })}
              empty="Nothing came back. Returns, corrections and status reports are read here, or by themselves where files travel."
            />
          )}
        </Loaded>
      }
      bar={
        clerk && (
          <>
            <Button look="deed" disabled={!account} onClick={() => setReading(true)}>
              Read a file of the bank…
            </Button>
            {account && (
              <Dialog
                open={reading}
                onClose={() => setReading(false)}
                title={`Read what the bank says of ${account.name}`}
              >
                <ReadForm account={account.id} close={() => setReading(false)} />
              </Dialog>
            )}
          </>
        )
      }
      slip={
        at ? (
          <NoticeSlip key={at.id} notice={at} />
        ) : (
          <p className="text-faint">Move the cursor onto a line to see what came of it.</p>
        )
      }
    />
  );
}

function NoticeSlip({ notice }: { notice: Notice }) {
  const clerk = useSession().roles.includes("CLERK");
  const queries = useQueryClient();
  const [closing, setClosing] = useState(false);
  const path = { params: { path: { id: notice.id } } };
  const again = useDeed(() => call(api.POST("/api/bank-notices/{id}/again", path)), {
    done: () => queries.invalidateQueries(),
    said: ({ done }) => (done ? "Done." : "It waits still, and says why."),
  });
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-base font-bold">
        {notice.called || notice.names}, {KINDS[notice.kind]}
      </h2>
      <p>
        <b>{notice.code}</b>: {notice.words}.
        {notice.amount && ` ${notice.amount.text} ${notice.amount.currency} came back.`}
      </p>
      {notice.vendor && (
        <p>
          <Link className="go" to={`/vendors/${notice.vendor}`}>
            {notice.payee}
          </Link>
          , paid in{" "}
          <Link className="go" to={`/file/${notice.batch}?at=${notice.claim}`}>
            its batch
          </Link>
        </p>
      )}
      {notice.said && (
        <p className={notice.state === "WAITING" ? "callout text-brass" : "callout"}>{notice.said}</p>
      )}
      <p className="text-faint text-note">
        read by {notice.readBy} for {longDate(notice.readOn)}, {clock(notice.readAt)}
        {notice.doneBy && notice.doneAt && (
          <>
            <br />
            {STATES[notice.state]} by {notice.doneBy}, {clock(notice.doneAt)}
          </>
        )}
      </p>
      {clerk && notice.state === "WAITING" && (
        <div className="flex gap-2">
          <Button disabled={again.busy} onClick={() => void again.run()}>
            Try it again
          </Button>
          <Button onClick={() => setClosing(true)}>It is dealt with…</Button>
        </div>
      )}
      <DeedDialog
        open={closing}
        onClose={() => setClosing(false)}
        title={`Close what the bank said of ${notice.called || notice.names}`}
        deed="Close it"
        reason="What became of it"
        run={async (why) => {
          await call(api.POST("/api/bank-notices/{id}/close", { ...path, body: { why } }));
          await queries.invalidateQueries();
        }}
      >
        <p>Nothing is written into the ledger by this: say what was done instead.</p>
      </DeedDialog>
    </div>
  );
}

function ReadForm({ account, close }: { account: number; close: () => void }) {
  const queries = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const form = useKeptForm(
    `read notices ${account}`,
    {},
    () => {
      const body = new FormData();
      const chosen = file.current?.files?.[0];
      body.append("file", chosen ?? new Blob([]), chosen?.name ?? "");
      return call(
        api.POST("/api/bank-notices", {
          params: { query: { account } },
          // a form with a file; its parts are no JSON
          body: body as never,
          bodySerializer: (typed) => typed as unknown as FormData,
        }),
      );
    },
    {
      done: async () => {
        await queries.invalidateQueries();
        close();
      },
      said: ({ said }) => said,
    },
  );
  return (
    <Form form={form} label="Read a file" deed="Read it" onClose={close}>
      <label className="flex flex-col gap-1">
        <span className="text-faint text-note">
          A status report (pain.002), or a file of ACH returns and changes
        </span>
        <input ref={file} type="file" name="file" required />
      </label>
      <p className="text-faint">
        What is sent back is reversed, and its invoices are open again. What is corrected becomes a proposal,
        which a second person confirms. What cannot be dealt with waits here.
      </p>
    </Form>
  );
}
