import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import { Download } from "../parts/Download";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";
import type { Import } from "./kinds";
import { WholeFile } from "./WholeFile";
import { Senders } from "./UnknownSenders";
import { Columns } from "./MappedColumns";
import { count } from "./kinds";

/** How far one file has come, what is refused and why, and what to do next. */
export function About({ job, clerk }: { job: Import; clerk: boolean }) {
  const queries = useQueryClient();
  const rows = useQuery({
    queryKey: ["import-rows", job.id, job.state, job.refused],
    enabled: job.refused > 0,
    queryFn: () =>
      call(
        api.GET("/api/imports/{id}/rows", {
          params: { path: { id: job.id }, query: { outcome: "REFUSED" } },
        }),
      ),
  });
  const deed = useDeed((does: () => Promise<unknown>) => does(), {
    done: async () => {
      await queries.invalidateQueries({ queryKey: ["imports"] });
      await queries.invalidateQueries({ queryKey: ["work"] });
    },
  });
  // why it is refused stands below
  const doing = (does: () => Promise<unknown>) => void deed.must(does).catch(() => undefined);
  const path = { params: { path: { id: job.id } } };
  const bringIn = (onlyGood: boolean) =>
    doing(() => call(api.POST("/api/imports/{id}/bring-in", { ...path, body: { onlyGood } })));
  const choose = (next: Partial<Schemas["FileChoices"]>) =>
    doing(() =>
      call(
        api.POST("/api/imports/{id}/choices", {
          ...path,
          body: {
            columns: job.columns,
            mark: job.mark,
            ledgerDate: job.ledgerDate,
            account: job.account,
            ...next,
          },
        }),
      ),
    );
  const done = job.state === "BRINGING" || job.state === "DONE" ? job.broughtIn : job.rows;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="font-semibold break-all">{job.fileName}</h2>
      <p className="text-faint text-note">
        Sent by {job.by}, {clock(job.at)}
      </p>
      <p aria-live="polite">
        It {job.stateWords}: <b>{count(job.rows)}</b> rows read, <b>{count(job.good)}</b> good,{" "}
        <b>{count(job.refused)}</b> refused, <b>{count(job.duplicates)}</b> here already,{" "}
        <b>{count(job.broughtIn)}</b> brought in.
      </p>
      {job.running && (
        <progress
          aria-label="Progress"
          className="accent-harbour w-full"
          max={job.state === "BRINGING" ? job.good : undefined}
          value={job.state === "BRINGING" ? done : undefined}
        />
      )}
      {job.trouble && <p className="callout">{job.trouble}</p>}
      {job.state === "COLUMNS" && clerk && <Columns job={job} onChosen={(columns) => choose({ columns })} />}
      {job.state === "CHECKED" && clerk && (
        <div className="flex flex-wrap gap-2">
          {job.refused === 0 && job.good > 0 && (
            <Button look="deed" disabled={deed.busy} onClick={() => bringIn(false)}>
              Bring in all {count(job.good)}
            </Button>
          )}
          {job.refused > 0 && job.good > 0 && (
            <Button look="deed" disabled={deed.busy} onClick={() => bringIn(true)}>
              Bring in only the {count(job.good)} good {job.good === 1 ? "one" : "ones"}
            </Button>
          )}
        </div>
      )}
      {job.state === "CHECKED" && clerk && job.kind === "UBL" && job.refused > 0 && (
        <Senders
          job={job}
          onKnown={(body) => doing(() => call(api.POST("/api/imports/{id}/senders", { ...path, body })))}
        />
      )}
      {clerk && ["COLUMNS", "CHECKED", "FAILED"].includes(job.state) && job.kind !== "VENDORS" && (
        <WholeFile
          key={`${job.mark} ${job.ledgerDate} ${job.account}`}
          job={job}
          onChosen={(next) => choose(next)}
        />
      )}
      {job.state === "CHECKED" && job.good > 0 && job.kind !== "VENDORS" && <AsRead job={job} />}
      {clerk && ["COLUMNS", "CHECKED", "FAILED"].includes(job.state) && (
        <Button
          className="self-start"
          disabled={deed.busy}
          onClick={() => doing(() => call(api.POST("/api/imports/{id}/discard", path)))}
        >
          Discard the file
        </Button>
      )}
      <Refusal deed={deed} />
      {job.refused > 0 && (
        <section>
          <h3 className="mb-1 flex justify-between font-semibold">
            Refused rows
            <Download path={`/api/imports/${job.id}/refused/csv`} />
          </h3>
          <ul>
            {rows.data?.map((row) => (
              <li key={row.line} className="border-hair border-b py-1 text-note">
                <b>{/^\d/.test(row.place) ? `row ${row.place}` : row.place}</b> {row.identity}{" "}
                <span className="text-rust">{row.reason}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

/** Amounts of the first rows as they were read, before any of them comes in. */
function AsRead({ job }: { job: Import }) {
  const rows = useQuery({
    queryKey: ["import-rows", job.id, job.state, job.mark, "good"],
    queryFn: () =>
      call(
        api.GET("/api/imports/{id}/rows", {
          params: { path: { id: job.id }, query: { outcome: "GOOD" } },
        }),
      ),
  });
  return (
    <section>
      <h3 className="mb-1 font-semibold">The first rows, as they are read</h3>
      <ul className="text-note">
        {rows.data?.slice(0, 5).map((row) => (
          <li key={row.line} className="border-hair flex gap-2 border-b py-0.5">
            <span className="text-faint">{row.place}</span>
            <span className="flex-1 truncate">{row.identity}</span>
            <b>{row.amount}</b>
          </li>
        ))}
      </ul>
    </section>
  );
}
