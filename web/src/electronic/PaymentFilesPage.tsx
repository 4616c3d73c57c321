import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { AccountWord } from "../bankfiles/AccountWord";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { shortDate } from "../parts/dates";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { LOOKS, OneFile } from "./FilesOfBatch";

type Listed = Schemas["ListedFile"];

const COLUMNS: Column<Listed>[] = [
  {
    key: "serial",
    title: "File",
    width: "64px",
    value: (one) => String(one.file.serial),
    cell: (one) => one.file.serial,
  },
  { key: "way", title: "By", width: "minmax(110px,1fr)", cell: (one) => one.way },
  { key: "batch", title: "Batch", width: "minmax(150px,2fr)", cell: (one) => one.batchName },
  {
    key: "paid-on",
    title: "Paid on",
    width: "92px",
    value: (one) => one.file.paysOn,
    cell: (one) => shortDate(one.file.paysOn),
  },
  {
    key: "payments",
    title: "Payments",
    width: "84px",
    right: true,
    value: (one) => String(one.file.payments),
    cell: (one) => one.file.payments || `${one.file.announced} announced`,
  },
  { key: "total", title: "Total", width: "112px", right: true, cell: (one) => one.file.total },
  {
    key: "state",
    title: "The bank",
    width: "116px",
    value: (one) => one.file.words,
    cell: (one) => <span className={LOOKS[one.file.state]}>{one.file.words}</span>,
  },
];

/** The files of payments of an account: those the bank has not answered, and what it said of the others. */
export function PaymentFilesPage() {
  const [values, change] = useAddress();
  const accounts = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
  });
  const account = accounts.data?.find((one) => String(one.id) === values.account) ?? accounts.data?.[0];
  const files = useQuery({
    queryKey: ["payment-files", account?.id],
    enabled: account !== undefined,
    queryFn: () => call(api.GET("/api/payment-files", { params: { query: { account: account!.id } } })),
    // the bank's answer arrives by itself
    refetchInterval: 20_000,
  });
  const all = files.data ?? [];
  const silent = all.filter((one) => one.file.state === "MADE").length;
  const at = all.find((one) => String(one.file.id) === values.at) ?? (all.length === 1 ? all[0] : undefined);
  return (
    <Station
      title="Files of payments"
      sentence={
        <>
          Files of payments from{" "}
          <AccountWord
            account={account}
            accounts={accounts.data ?? []}
            onChange={(value) => change({ account: value, at: undefined })}
          />
          , newest first.
        </>
      }
      answer={
        <>
          <Figure value={silent} look={silent > 0 ? "text-brass" : ""}>
            {silent === 1 ? "file" : "files"} of which the bank said nothing yet
          </Figure>
          <Figure value={all.length}>listed</Figure>
          {account && (
            <Link className="go ml-auto" to={`/bank/notices?account=${account.id}`}>
              What it sent back
            </Link>
          )}
        </>
      }
      list={
        <Loaded query={files}>
          {() => (
            <Grid
              list="payment-files"
              label="Files of payments"
              items={all.map((row) => ({ key: String(row.file.id), row }))}
              columns={COLUMNS}
              cursor={values.at}
              onCursor={(key) => change({ at: key })}
              empty="No file of payments was made from this account. Approved batches that go by file are listed at Print."
            />
          )}
        </Loaded>
      }
      slip={
        at && account ? (
          <div className="flex flex-col gap-3">
            <h2 className="text-base font-bold">
              <Link className="go" to={`/file/${at.batch}`}>
                {at.batchName}
              </Link>
            </h2>
            <div>
              <OneFile key={at.file.id} file={at.file} account={account.id} currency={at.currency} />
            </div>
          </div>
        ) : (
          <p className="text-faint">Move the cursor onto a file to see what is known of it.</p>
        )
      }
    />
  );
}
