import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, call } from "../api/client";
import { clock } from "../parts/dates";
import { Word } from "../parts/Word";
import { addressOf, type Change, type Question } from "./criteria";
import { ChecksEntry, Entry, Form } from "../parts/Form";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";

const SHARED = "shared";

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
  const kept = useQuery({ queryKey: ["criteria"], queryFn: () => call(api.GET("/api/criteria")) });
  const done = (now: unknown) => queries.setQueryData(["criteria"], now);
  const removing = useDeed(
    (id: number) => call(api.POST("/api/criteria/{id}/remove", { params: { path: { id } } })),
    { done },
  );
  const form = useKeptForm(
    "keep criteria",
    { name: "", shared: "" },
    ({ name, shared }) =>
      call(api.POST("/api/criteria", { body: { name, shared: shared === SHARED, question } })),
    { done },
  );
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
                onClick={() => void removing.run(one.id)}
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
      <Form form={form} label="Keep this sentence" deed="Keep it" className="gap-2">
        <Entry name="name" label="Keep this sentence as" small maxLength={60} required />
        <ChecksEntry name="shared" choices={[{ value: SHARED, text: "Everybody may use it" }]} />
      </Form>
    </div>
  );
}
