import { useQueryClient } from "@tanstack/react-query";
import { api, call } from "../api/client";
import { BankSaid } from "../bankfiles/BankSaid";
import { Sending } from "../bankfiles/Sending";
import { useSession } from "../frame/session";
import { clock, longDate } from "../parts/dates";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";
import type { Filing, PaymentFile } from "./useFiling";

export const LOOKS: Record<PaymentFile["state"], string> = {
  MADE: "text-brass",
  ACCEPTED: "text-greentext",
  REFUSED: "text-rust",
};

/** The files of a batch, the newest first: handed over, and what the bank said. */
export function FilesOfBatch({ filing }: { filing: Filing }) {
  if (filing.files.length === 0)
    return (
      <p className="text-faint">No file yet. Once one is made, it stands here until the bank answered.</p>
    );
  return (
    <section aria-label="Files">
      <h2 className="mb-1 font-semibold">{filing.files.length === 1 ? "Its file" : "Its files"}</h2>
      <ul>
        {filing.files.map((file) => (
          <li key={file.id} className="border-hair border-t py-2">
            <OneFile file={file} account={filing.account} currency={filing.currency} />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** One file: what it comes to, where it stands, and what is said of it. */
export function OneFile({
  file,
  account,
  currency,
}: {
  file: PaymentFile;
  account: number;
  currency: string;
}) {
  const clerk = useSession().roles.includes("CLERK");
  return (
    <>
      <div className="flex justify-between">
        <b>File {file.serial}</b>
        <span className={LOOKS[file.state]}>{file.words}</span>
      </div>
      <div className="flex justify-between">
        <span>
          {file.announced > 0
            ? `announces ${file.announced} ${file.announced === 1 ? "account" : "accounts"} and pays nothing, as of `
            : `${file.payments} ${file.payments === 1 ? "payment" : "payments"}, paid on `}
          {longDate(file.paysOn)}
        </span>
        <span>
          {file.total} {currency}
        </span>
      </div>
      <div className="text-faint text-note">
        <span className="font-mono">{file.name}</span>, {file.madeBy}, {clock(file.madeAt)}
        {file.follows && `; after file ${file.follows} was refused`}
      </div>
      {file.handedAt && (
        <div className="text-faint text-note">
          taken to the bank by {file.handedBy}, {clock(file.handedAt)}
        </div>
      )}
      {file.note && <div className="text-note">{file.note}</div>}
      {clerk && (
        <div className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
          <Download file={file} />
          <Sending file={file} account={account} clerk={clerk} />
          {file.state === "MADE" && (
            <BankSaid
              file={file}
              singles="Payments it refused, if any: a line each, the reference, then what it said. They wait for another file."
              such="CT100001 the account is closed"
              refused="Its payments wait for another file, which is linked to this one, or are taken out."
            />
          )}
        </div>
      )}
    </>
  );
}

/** Takes the file to hand it over; who took it is kept. */
function Download({ file }: { file: PaymentFile }) {
  const queries = useQueryClient();
  const taking = useDeed(
    () => call(api.POST("/api/bank-files/{id}/handed", { params: { path: { id: file.id } } })),
    {
      done: () => {
        window.location.assign(`/api/bank-files/${file.id}/content`);
        return Promise.all(
          [["filing"], ["payment-files"]].map((queryKey) => queries.invalidateQueries({ queryKey })),
        );
      },
    },
  );
  return (
    <>
      <button className="go min-h-6" disabled={taking.busy} onClick={() => void taking.run()}>
        {file.state === "MADE" ? "Download to hand it over" : "Download it again"}
      </button>
      <Refusal deed={taking} />
    </>
  );
}
