import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { clock } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { BankSaid } from "./BankSaid";
import { Sending } from "./Sending";

export type Event = Schemas["EventView"];

/** Issues and voids beside each other, never added. */
export function counted({ issues, voids }: { issues: number; voids: number }): string {
  const issued = `${issues} ${issues === 1 ? "issue" : "issues"}`;
  return voids === 0 ? issued : `${issued} and ${voids} ${voids === 1 ? "void" : "voids"}`;
}

export function Files({ account }: { account: number }) {
  const session = useSession();
  const queries = useQueryClient();
  const [anew, setAnew] = useState(false);
  const files = useFiles(account);
  const clerk = session.roles.includes("CLERK");
  const states: Record<string, string> = {
    MADE: "not answered yet",
    ACCEPTED: "accepted",
    REFUSED: "refused",
  };
  return (
    <div className="flex flex-col gap-3">
      <div className="flex items-baseline justify-between">
        <h2 className="font-semibold">Files made</h2>
        {clerk && (
          <button className="go min-h-6" onClick={() => setAnew(true)}>
            Tell all anew…
          </button>
        )}
      </div>
      {files.data?.length === 0 && <p className="text-faint">No file yet.</p>}
      <ul>
        {files.data?.slice(0, 30).map((file) => (
          <li key={file.id} className="border-hair border-t py-2">
            <div className="flex justify-between">
              <b>
                File {file.serial}
                {file.anew && <span className="text-brass font-normal"> tells anew</span>}
              </b>
              <span
                className={
                  file.state === "REFUSED"
                    ? "text-rust"
                    : file.state === "MADE"
                      ? "text-brass"
                      : "text-greentext"
                }
              >
                {states[file.state]}
              </span>
            </div>
            <div className="flex justify-between">
              <span>
                {counted(file)}
                {file.follows ? `, after file ${file.follows} was refused` : ""}
              </span>
              <span>
                {file.issued.text}
                {file.voids > 0 && `, voids ${file.voided.text}`}
              </span>
            </div>
            <div className="text-faint text-note">
              {file.madeBy}, {clock(file.madeAt)}
              {file.note && `: ${file.note}`}
            </div>
            {file.narrowed && (
              <div className="text-faint text-note">
                {file.anew ? `asked for: ${file.narrowed}` : file.narrowed}
              </div>
            )}
            {file.refused.map((one) => (
              <div key={`${one.number} ${one.kind}`} className="text-rust text-note">
                {one.kind === "VOID" ? "void of " : ""}check {one.number} refused: {one.why}
              </div>
            ))}
            {clerk && (
              <div className="mt-1 flex flex-wrap gap-2">
                <a
                  className="go inline-flex min-h-6 items-center"
                  href={`/api/bank-files/${file.id}/content`}
                  download
                >
                  Download
                </a>
                <Sending file={file} account={account} clerk={clerk} />
                {file.state === "MADE" && (
                  <BankSaid
                    file={file}
                    singles={
                      file.anew
                        ? "Checks it refused, if any: a line each, the number, then what it said."
                        : "Checks it refused, if any: a line each, the number, then what it said. They wait again."
                    }
                    such="41237 payee missing"
                    refused="Its events wait again and go into a new file, which is linked to this one."
                  />
                )}
              </div>
            )}
          </li>
        ))}
      </ul>
      <DeedDialog
        open={anew}
        onClose={() => setAnew(false)}
        title="Tell the bank anew of every check that is out"
        deed="Make the file"
        reason="What the bank asked for"
        run={async (why) => {
          await call(api.POST("/api/bank-files/anew", { body: { account, why } }));
          await queries.invalidateQueries();
        }}
      >
        <p>
          It tells again of each check the bank was told of and has not paid. The file is marked so, and none
          of it counts twice.
        </p>
      </DeedDialog>
    </div>
  );
}

/** The files of an account, the newest first. */
export function useFiles(account: number) {
  return useQuery({
    queryKey: ["bank-files", account],
    queryFn: () => call(api.GET("/api/bank-files", { params: { query: { account } } })),
  });
}
