import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { Link } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { longDate, shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Grid, type Column } from "../parts/Grid";
import { ChoiceWord, DayWord } from "../parts/Word";
import { useFiles, type Event, counted, Files } from "./BankFiles";
import { AccountWord } from "./AccountWord";
import { FilePreview } from "./FilePreview";

const COLUMNS: Column<Event>[] = [
  {
    key: "number",
    title: "Number",
    width: "84px",
    cell: (e) => <span className="font-mono">{e.number}</span>,
  },
  {
    key: "tells-of",
    title: "Tells of",
    width: "90px",
    cell: (e) => (
      <span className={e.kind === "VOID" ? "text-brass" : ""}>{e.kind === "VOID" ? "void" : "issue"}</span>
    ),
  },
  { key: "payee", title: "Payee", width: "minmax(150px,2fr)", cell: (e) => e.payee },
  { key: "dated", title: "Dated", width: "100px", value: (e) => e.date, cell: (e) => shortDate(e.date) },
  { key: "amount", title: "Amount", width: "110px", right: true, cell: (e) => e.amount.text },
];

/** What the bank has not heard yet, the file that tells it, and the files before. */
export function BankStation() {
  const accounts = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
  });
  return (
    <Loaded query={accounts}>
      {(data) => {
        const told = data.filter((account) => account.positivePay);
        return told.length === 0 ? (
          <p className="text-faint p-8">
            No account is set up for positive pay.{" "}
            <Link className="go" to="/bank/files">
              Files of payments
            </Link>{" "}
            stand by themselves.
          </p>
        ) : (
          <Bank accounts={told} />
        );
      }}
    </Loaded>
  );
}

function Bank({ accounts }: { accounts: Schemas["BankAccountView"][] }) {
  const session = useSession();
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const [making, setMaking] = useState(false);
  const [closing, setClosing] = useState(false);
  const account = accounts.find((a) => String(a.id) === values.account) ?? accounts[0]!;
  const series = useQuery({
    queryKey: ["series"],
    queryFn: () => call(api.GET("/api/checks/series")),
  });
  const own = series.data?.filter((one) => one.bankAccount === account.id) ?? [];
  const ofSeries = own.find((one) => String(one.id) === values.series);
  const narrowed = { account: account.id, series: ofSeries?.id, until: values.until };
  const preview = useQuery({
    queryKey: ["bank-preview", narrowed],
    queryFn: () => call(api.GET("/api/bank-files/preview", { params: { query: narrowed } })),
    placeholderData: keepPreviousData,
  });
  const files = useFiles(account.id);
  const open = files.data?.find((file) => file.state === "MADE");
  // a file that was made is not yet one the bank has read
  const nothing = open
    ? `Nothing waits for a file. Of file ${open.serial} it is not known yet whether the bank took it: say beside the list what it answered.`
    : `Nothing waits for a file${files.data ? ", and every file is answered" : ""}. Posted checks and voids appear here.`;
  const cursor = values.at;
  const data = preview.data;
  const atCursor = data?.events.find((one) => String(one.event) === cursor);
  const what = data ? counted(data) : "";
  return (
    <Station
      title="Bank"
      sentence={
        <>
          What the bank has not heard of{" "}
          <AccountWord
            account={account}
            accounts={accounts}
            onChange={(value) => change({ account: value, at: undefined, series: undefined })}
          />{" "}
          yet, of{" "}
          <ChoiceWord
            name="Series"
            text={ofSeries?.name ?? "every series"}
            value={values.series ?? ""}
            choices={[
              { value: "", text: "every series" },
              ...own.map((one) => ({ value: String(one.id), text: one.name })),
            ]}
            onChange={(value) => change({ series: value || undefined, at: undefined })}
          />
          , dated until{" "}
          <DayWord
            name="Dated until"
            text={values.until ? longDate(values.until) : "any day"}
            value={values.until ?? ""}
            onChange={(value) => change({ until: value || undefined, at: undefined })}
          />
          .
        </>
      }
      answer={
        data && (
          <>
            <Figure value={data.issues}>{data.issues === 1 ? "issue" : "issues"} wait, together</Figure>
            <Figure value={`${data.issued.text} ${data.issued.currency}`} />
            {data.voids > 0 && (
              <>
                <Figure value={data.voids}>{data.voids === 1 ? "void" : "voids"}, together</Figure>
                <Figure value={`${data.voided.text} ${data.voided.currency}`} />
              </>
            )}
            <span>layout {data.layout}</span>
            {data.events.length < data.issues + data.voids && (
              <span className="text-faint">the first {data.events.length} are listed</span>
            )}
            <span className="order-last ml-auto flex gap-4">
              <Link className="go" to={`/bank/exchange?account=${account.id}`}>
                What travels
              </Link>
              <Link className="go" to={`/bank/files?account=${account.id}`}>
                Files of payments
              </Link>
              <Link className="go" to={`/bank/notices?account=${account.id}`}>
                What it sent back
              </Link>
              <Link className="go" to={`/bank/paid?account=${account.id}`}>
                What the bank paid
              </Link>
            </span>
            {data.staying > 0 && (
              <span className="text-brass">
                {data.staying} more {data.staying === 1 ? "stays" : "stay"} for a later file
              </span>
            )}
            {data.heldBack > 0 && (
              <span className="text-brass">
                {data.heldBack} {data.heldBack === 1 ? "void waits" : "voids wait"} until the bank took the
                issue
              </span>
            )}
          </>
        )
      }
      list={
        <Loaded query={preview}>
          {(seen) => (
            <Grid
              list="bank-events"
              label="Waiting bank events"
              items={seen.events.map((row) => ({ key: String(row.event), row }))}
              columns={COLUMNS}
              cursor={cursor}
              onCursor={(key) => change({ at: key })}
              empty={nothing}
            />
          )}
        </Loaded>
      }
      bar={
        <>
          <span className="text-faint text-note">
            Waiting events decide what goes in; a day or a series only narrows them.
          </span>
          {session.roles.includes("CLERK") && (
            <Button disabled={!atCursor} onClick={() => setClosing(true)}>
              Never tell it…
            </Button>
          )}
          {atCursor && (
            <DeedDialog
              open={closing}
              onClose={() => setClosing(false)}
              title={`Never tell the bank of the ${atCursor.kind === "VOID" ? "void" : "issue"} of check ${atCursor.number}`}
              deed="Never tell it"
              grave
              reason="Why, such as: the bank was told by telephone"
              run={async (why) => {
                await call(
                  api.POST("/api/bank-events/never-report", {
                    body: { account: account.id, events: [atCursor.event], why },
                  }),
                );
                await queries.invalidateQueries();
              }}
            >
              <p>
                {atCursor.kind === "VOID"
                  ? "It goes into no file any more."
                  : "It goes into no file any more: the bank asks about this check, or sends it back, when it comes in."}
              </p>
            </DeedDialog>
          )}
          <Button
            look="deed"
            className="ml-auto"
            disabled={!data || data.events.length === 0 || !session.roles.includes("CLERK")}
            onClick={() => setMaking(true)}
          >
            Make the file of {what}…
          </Button>
          {data && (
            <DeedDialog
              open={making}
              wide
              onClose={() => setMaking(false)}
              title={`A file of ${what} for ${account.bankName}`}
              deed="Make the file"
              run={async () => {
                await call(api.POST("/api/bank-files", { body: narrowed }));
                await queries.invalidateQueries();
                toast("The file is made. Download it, give it to the bank, then say what the bank answered.");
              }}
            >
              <FilePreview preview={data} />
            </DeedDialog>
          )}
        </>
      }
      slip={<Files account={account.id} />}
    />
  );
}
