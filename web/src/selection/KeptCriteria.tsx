import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, call } from "../api/client";
import { clock } from "../parts/dates";
import { Word } from "../parts/Word";
import { addressOf, type Change, type Question } from "./criteria";
import { Field } from "../parts/Field";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";

/** Sentences kept under a name: one's own, those others share, and what came of the last run of each. */
export function KeptCriteria({ question, change }: { question: Question; change: Change }) {
  return (
    <Word name="Kept criteria" text="Keep or recall…">
      {(close) => <Kept question={question} change={change} close={close} />}
    </Word>
  );
}

function Kept({ question, change, close }: { question: Question; change: Change; close: () => void }) {
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [shared, setShared] = useState(false);
  const kept = useQuery({ queryKey: ["criteria"], queryFn: () => call(api.GET("/api/criteria")) });
  const deed = useDeed((does: () => Promise<unknown>) => does(), {
    done: (now) => {
      queries.setQueryData(["criteria"], now);
      setName("");
    },
  });
  // why it is refused stands below
  const doing = (does: () => Promise<unknown>) => void deed.must(does).catch(() => undefined);
  return (
    <div className="flex w-96 flex-col gap-2">
      <ul aria-label="Kept criteria">
        {kept.data?.map((one) => (
          <li key={one.id} className="border-hair flex items-start gap-2 border-b py-1">
            <button
              type="button"
              className="hover:bg-cursor min-h-8 flex-1 text-left"
              onClick={() => {
                change({ ...addressOf(one.question), kept: String(one.id) });
                close();
              }}
            >
              <b className="text-harbour">{one.name}</b>{" "}
              <span className="text-faint text-note">
                {one.mine ? (one.shared ? "yours, shared" : "yours") : `of ${one.owner}`}
              </span>
              {one.lastOutcome && one.lastRunAt && (
                <span className="text-faint block text-note">
                  last run {clock(one.lastRunAt)}: {one.lastOutcome}
                </span>
              )}
            </button>
            {one.lastBatch && (
              <Link className="go min-h-6 text-note" to={`/batches/${one.lastBatch}`}>
                batch
              </Link>
            )}
            {one.mine && (
              <button
                type="button"
                aria-label={`Remove ${one.name}`}
                className="go min-h-6 px-1 text-note"
                onClick={() =>
                  doing(() =>
                    call(api.POST("/api/criteria/{id}/remove", { params: { path: { id: one.id } } })),
                  )
                }
              >
                remove
              </button>
            )}
          </li>
        ))}
        {kept.data?.length === 0 && (
          <li className="text-faint py-1">Nothing is kept yet. Give this sentence a name to ask it again.</li>
        )}
      </ul>
      <form
        className="flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          doing(() => call(api.POST("/api/criteria", { body: { name, shared, question } })));
        }}
      >
        <Field label="Keep this sentence as" small>
          <input value={name} maxLength={60} required onChange={(event) => setName(event.target.value)} />
        </Field>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="min-h-0"
            checked={shared}
            onChange={(event) => setShared(event.target.checked)}
          />
          Everybody may use it
        </label>
        <Refusal deed={deed} />
        <button className="bg-harbour text-onharbour min-h-8 self-start px-3 font-bold">Keep it</button>
      </form>
    </div>
  );
}
