import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { longDate, shortDate } from "../parts/dates";
import { Dialog } from "../parts/Dialog";
import { Entry, Form } from "../parts/Form";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";
import { ScheduleForm } from "./ScheduleForm";

const SHOWN = 12;

/** One that is paid again and again: what of it was paid, and what can be done with it. */
export function ScheduleSlip({
  row,
  rhythms,
  keeps,
}: {
  row: Schemas["ScheduleView"];
  rhythms: Schemas["RhythmChoice"][];
  keeps: boolean;
}) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState<"change" | "end" | "pass">();
  const close = () => setAsking(undefined);
  const again = useDeed(
    (dueOn: string) =>
      call(api.POST("/api/schedules/{id}/propose", { params: { path: { id: row.id } }, body: { dueOn } })),
    { done: () => queries.invalidateQueries(), said: (_, dueOn) => `${longDate(dueOn)} is proposed again.` },
  );
  return (
    <div className="flex flex-col gap-4">
      <h2 className="text-base font-bold">{row.name}</h2>
      <p>
        <b>
          {row.amount.text} {row.amount.currency}
        </b>{" "}
        {row.rhythmWords} from {longDate(row.first)}
        {row.until && ` until ${longDate(row.until)}`}, to{" "}
        <Link className="go" to={`/vendors/${row.vendor}`}>
          {row.vendorName}
        </Link>{" "}
        by {row.paidBy}, for <span className="font-mono">{row.said}</span>; the payee reads{" "}
        <span className="font-mono">{row.reference}</span>. Kept by {row.keptBy}.
      </p>
      {row.endedOn ? (
        <p className="text-brass">
          It ended on {longDate(row.endedOn)}: {row.endedWhy}
        </p>
      ) : (
        <p>{row.nextDay ? `Next on ${longDate(row.nextDay)}.` : "None of its days waits within a year."}</p>
      )}
      {keeps && !row.endedOn && (
        <div className="flex flex-wrap gap-2">
          <Button onClick={() => setAsking("change")}>Change…</Button>
          {row.nextDay && (
            <Button onClick={() => setAsking("pass")}>Pass over {shortDate(row.nextDay)}…</Button>
          )}
          <Button onClick={() => setAsking("end")}>End it…</Button>
        </div>
      )}
      {row.days.length > 0 && (
        <table className="w-full text-note">
          <caption className="text-faint text-left">What became of its days</caption>
          <tbody>
            {row.days.slice(0, SHOWN).map((day) => (
              <tr key={day.dueOn} className="border-hair border-t align-top">
                <td className="w-24 py-1">{shortDate(day.dueOn)}</td>
                <td className="py-1">
                  {day.batch ? (
                    <Link className="go" to={`/batches/${day.batch}`}>
                      {day.words}
                    </Link>
                  ) : (
                    <>
                      {day.words}{" "}
                      {keeps && !row.endedOn && (
                        <button
                          type="button"
                          className="go min-h-6"
                          onClick={() => void again.run(day.dueOn)}
                        >
                          Propose it again
                        </button>
                      )}
                    </>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {row.days.length > SHOWN && <p className="text-faint">and {row.days.length - SHOWN} earlier</p>}
      <Dialog open={asking === "change"} onClose={close} title={`Change “${row.name}”`} wide>
        <ScheduleForm given={row} rhythms={rhythms} onClose={close} />
      </Dialog>
      <Dialog open={asking === "end"} onClose={close} title={`End “${row.name}”`}>
        <Reason
          name={`end ${row.id}`}
          deed="End the schedule"
          says="None of its days is proposed any more. What was paid stays."
          onClose={close}
          does={(reason) =>
            call(
              api.POST("/api/schedules/{id}/end", {
                params: { path: { id: row.id } },
                body: { reason, version: row.version },
              }),
            )
          }
        />
      </Dialog>
      <Dialog
        open={asking === "pass"}
        onClose={close}
        title={`Pass over ${row.nextDay ? longDate(row.nextDay) : ""}`}
      >
        <Reason
          name={`pass ${row.id} ${row.nextDay}`}
          deed="Pass over this day"
          says="It is not paid, and not proposed any more; the days after it are."
          onClose={close}
          does={(reason) =>
            call(
              api.POST("/api/schedules/{id}/pass", {
                params: { path: { id: row.id } },
                body: { dueOn: row.nextDay ?? "", reason },
              }),
            )
          }
        />
      </Dialog>
    </div>
  );
}

function Reason({
  name,
  deed,
  says,
  does,
  onClose,
}: {
  name: string;
  deed: string;
  says: string;
  does: (reason: string) => Promise<unknown>;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const form = useKeptForm(name, { reason: "" }, (typed) => does(typed.reason), {
    done: async () => {
      await queries.invalidateQueries();
      onClose();
    },
  });
  return (
    <Form form={form} label={deed} deed={deed} onClose={onClose}>
      <p>{says}</p>
      <Entry name="reason" label="Why" autoFocus maxLength={200} />
    </Form>
  );
}
