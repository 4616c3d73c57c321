import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { clock } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";

export type Event = Schemas["EventView"];

type File = Schemas["FileView"];

/** Issues and voids beside each other, never added. */
export function counted({ issues, voids }: { issues: number; voids: number }): string {
  const issued = `${issues} ${issues === 1 ? "issue" : "issues"}`;
  return voids === 0 ? issued : `${issued} and ${voids} ${voids === 1 ? "void" : "voids"}`;
}

export function Files({ account }: { account: number }) {
  const session = useSession();
  const queries = useQueryClient();
  const [refusing, setRefusing] = useState<File>();
  const [accepting, setAccepting] = useState<File>();
  const files = useFiles(account);
  const clerk = session.roles.includes("CLERK");
  const states: Record<string, string> = {
    MADE: "not answered yet",
    ACCEPTED: "accepted",
    REFUSED: "refused",
  };
  return (
    <div className="flex flex-col gap-3">
      <h2 className="font-semibold">Files made</h2>
      {files.data?.length === 0 && <p className="text-faint">No file yet.</p>}
      <ul>
        {files.data?.slice(0, 30).map((file) => (
          <li key={file.id} className="border-hair border-t py-2">
            <div className="flex justify-between">
              <b>File {file.serial}</b>
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
            {clerk && (
              <div className="mt-1 flex flex-wrap gap-2">
                <a
                  className="go inline-flex min-h-6 items-center"
                  href={`/api/bank-files/${file.id}/content`}
                  download
                >
                  Download
                </a>
                {file.state === "MADE" && (
                  <>
                    <button className="go min-h-6" onClick={() => setAccepting(file)}>
                      The bank took it…
                    </button>
                    <button className="text-rust min-h-6 underline" onClick={() => setRefusing(file)}>
                      The bank refused it…
                    </button>
                  </>
                )}
              </div>
            )}
          </li>
        ))}
      </ul>
      <DeedDialog
        open={accepting !== undefined}
        onClose={() => setAccepting(undefined)}
        title={`The bank took file ${accepting?.serial}`}
        deed="Record that the bank took it"
        run={async () => {
          await call(
            api.POST("/api/bank-files/{id}/accepted", {
              params: { path: { id: accepting!.id } },
              body: { note: "" },
            }),
          );
          await queries.invalidateQueries();
        }}
      />
      <DeedDialog
        open={refusing !== undefined}
        onClose={() => setRefusing(undefined)}
        title={`The bank refused file ${refusing?.serial}`}
        deed="Record the refusal"
        grave
        reason="What the bank found wrong"
        run={async (note) => {
          await call(
            api.POST("/api/bank-files/{id}/refused", {
              params: { path: { id: refusing!.id } },
              body: { note },
            }),
          );
          await queries.invalidateQueries();
        }}
      >
        <p>Its events wait again and go into a new file, which is linked to this one.</p>
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
