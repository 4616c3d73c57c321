import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Facts } from "../parts/Facts";
import { useDeed } from "../parts/useDeed";
import { STATES } from "./states";

const SENT_SHOWN = 30;

/** A file of the bank, and what can be done with it. */
export function CameSlip({ one, clerk }: { one: Schemas["IncomingView"]; clerk: boolean }) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState<"aside" | "gap">();
  const path = { params: { path: { id: one.id } } };
  const done = () => queries.invalidateQueries();
  const read = useDeed(() => call(api.POST("/api/bank-incoming/{id}/read", { ...path, body: { gap: "" } })), {
    done,
  });
  const back = useDeed(() => call(api.POST("/api/bank-incoming/{id}/take-back", path)), { done });
  const waits = one.state === "WAITING";
  return (
    <div className="flex flex-col gap-4">
      <h2 className="font-semibold break-all">{one.name}</h2>
      <Facts
        facts={[
          ["Read as", one.is || "nobody said what files of this name are"],
          ["Came", clock(one.fetchedAt)],
          ["Bytes", String(one.bytes)],
          ["State", `${STATES[one.state]}${one.doneBy ? ` by ${one.doneBy}` : ""}`],
        ]}
      />
      {one.said && <p className={waits ? "text-rust" : ""}>{one.said}</p>}
      {clerk && (
        <div className="flex flex-wrap gap-2">
          {waits && (
            <Button disabled={read.busy} onClick={() => void read.run()}>
              Read it
            </Button>
          )}
          {waits && one.gap && <Button onClick={() => setAsking("gap")}>Read it all the same…</Button>}
          {waits && <Button onClick={() => setAsking("aside")}>Set it aside…</Button>}
          {one.state === "SET_ASIDE" && (
            <Button disabled={back.busy} onClick={() => void back.run()}>
              Let it wait again
            </Button>
          )}
          <a
            className="go inline-flex min-h-8 items-center"
            href={`/api/bank-incoming/${one.id}/content`}
            download
          >
            Download
          </a>
        </div>
      )}
      <DeedDialog
        open={asking === "aside"}
        onClose={() => setAsking(undefined)}
        title={`Set ${one.name} aside`}
        deed="Set it aside"
        reason="Why it is not read"
        run={async (why) => {
          await call(api.POST("/api/bank-incoming/{id}/set-aside", { ...path, body: { why } }));
          await done();
        }}
      >
        <p>Nothing of it is read. It stays here, and can wait again.</p>
      </DeedDialog>
      <DeedDialog
        open={asking === "gap"}
        onClose={() => setAsking(undefined)}
        title={`Read ${one.name} all the same`}
        deed="Read it"
        reason="Why, although it does not follow the last statement"
        run={async (gap) => {
          await call(api.POST("/api/bank-incoming/{id}/read", { ...path, body: { gap } }));
          await done();
        }}
      >
        <p>{one.said}</p>
        <p>What is missing between them stands beside bank and ledger until it is read, too.</p>
      </DeedDialog>
    </div>
  );
}

/** The newest files sent to the bank. */
export function SentSlip({ sendings }: { sendings: Schemas["SendingView"][] }) {
  return (
    <div className="flex flex-col gap-3">
      <h2 className="font-semibold">Files sent</h2>
      {sendings.length === 0 && (
        <p className="text-faint">None yet. Files are made, and sent, at the station Bank.</p>
      )}
      <ul>
        {sendings.slice(0, SENT_SHOWN).map((one) => (
          <li key={one.file} className="border-hair border-t py-2">
            <div className="flex justify-between gap-3">
              <span className="font-mono break-all">{one.name}</span>
              <span
                className={
                  one.state === "SENT"
                    ? "text-greentext"
                    : one.state === "WAITING"
                      ? "text-brass"
                      : "text-rust"
                }
              >
                {one.words}
              </span>
            </div>
            <div className="text-faint text-note">
              {one.askedBy}, {clock(one.askedAt)}
              {one.sentAt && `; sent ${clock(one.sentAt)}`}
            </div>
            {one.trouble && <div className="text-rust text-note">{one.trouble}</div>}
          </li>
        ))}
      </ul>
      {sendings.length > SENT_SHOWN && (
        <p className="text-faint text-note">
          The newest {SENT_SHOWN}. Each file stands at the station Bank, with how far it is.
        </p>
      )}
    </div>
  );
}
