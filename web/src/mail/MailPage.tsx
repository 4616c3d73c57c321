import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Loaded } from "../parts/Loaded";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { useDeed } from "../parts/useDeed";
import { Grid, type Column } from "../parts/Grid";
import { ChoiceWord } from "../parts/Word";

type Mail = Schemas["MailView"];

const WHOSE = {
  EVERYBODY: "everybody",
  PEOPLE: "people who work here",
  PAYEES: "payees",
} as const;
type Whose = keyof typeof WHOSE;

const COLUMNS: Column<Mail>[] = [
  { key: "to", title: "To", width: "minmax(110px,0.8fr)", cell: (one) => one.to },
  { key: "subject", title: "Subject", width: "minmax(180px,2fr)", cell: (one) => one.subject },
  {
    key: "state",
    title: "State",
    width: "minmax(84px,0.8fr)",
    cell: (one) =>
      one.inTrouble ? (
        <span className="text-rust" title={one.trouble}>
          {one.state === "WAITING" ? `fails, ${one.tries}×` : one.stateWords}
        </span>
      ) : (
        one.stateWords
      ),
  },
  {
    key: "written",
    title: "Written",
    width: "132px",
    right: true,
    value: (one) => one.madeAt,
    cell: (one) => clock(one.madeAt),
  },
];

/** What was told to whom by mail, and what could not be. */
export function MailPage() {
  const [values] = useAddress();
  const whose = values.whose && values.whose in WHOSE ? (values.whose as Whose) : "EVERYBODY";
  const mail = useQuery({
    queryKey: ["mail", whose],
    queryFn: () => call(api.GET("/api/mail", { params: { query: { whose } } })),
    placeholderData: keepPreviousData,
    refetchInterval: 10_000,
  });
  return <Loaded query={mail}>{(data) => <MailList mail={data} whose={whose} />}</Loaded>;
}

function MailList({ mail, whose }: { mail: Mail[]; whose: Whose }) {
  const session = useSession();
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const again = useDeed(
    (id: number) => call(api.POST("/api/mail/{id}/again", { params: { path: { id } } })),
    {
      done: () => queries.invalidateQueries({ queryKey: ["mail"] }),
      said: () => "It is tried again now.",
    },
  );
  const at = mail.find((one) => String(one.id) === values.at);
  const failing = mail.filter((one) => one.inTrouble);
  const may = session.roles.some((role) => role === "CONTROLLER" || role === "ADMINISTRATOR");
  const mayAdvise = session.roles.some((role) => role === "CLERK" || role === "CONTROLLER");
  const [asking, setAsking] = useState(false);
  return (
    <Station
      title="Mail"
      sentence={
        <>
          What was told by mail to{" "}
          <ChoiceWord
            name="To"
            text={WHOSE[whose]}
            value={whose}
            choices={Object.entries(WHOSE).map(([value, text]) => ({ value: value as Whose, text }))}
            onChange={(next) => change({ whose: next === "EVERYBODY" ? undefined : next, at: undefined })}
          />
          . Work never waits for it, and nothing can be done from a mail.
        </>
      }
      answer={
        <>
          <Figure value={mail.filter((one) => one.state === "SENT").length}>sent</Figure>
          <Figure value={mail.filter((one) => one.state === "WAITING").length}>waiting</Figure>
          {failing.length > 0 && (
            <Figure value={failing.length} look="text-rust">
              in trouble
            </Figure>
          )}
          <span>the newest 300</span>
        </>
      }
      list={
        <Grid
          list="mail"
          label="Mail"
          items={mail.map((row) => ({ key: String(row.id), row }))}
          columns={COLUMNS}
          cursor={values.at}
          onCursor={(key) => change({ at: key })}
          empty={
            whose === "PAYEES"
              ? "No payee was told by mail yet. Those who wish it are, once their payment is posted."
              : "No mail was written yet. Whoever is asked to approve is told by mail."
          }
        />
      }
      bar={
        <>
          <span className="text-faint text-note">
            A mail that fails is tried again, later and later, for about three days.
          </span>
          <span className="ml-auto flex gap-2">
            {mayAdvise && (
              <Button disabled={!at?.advice || at.state !== "SENT"} onClick={() => setAsking(true)}>
                It came back…
              </Button>
            )}
            {may && (
              <Button
                disabled={!at || at.state === "SENT" || at.address === "" || again.busy}
                onClick={() => void again.run(at!.id)}
              >
                Try it again now
              </Button>
            )}
          </span>
          {at && (
            <DeedDialog
              open={asking}
              onClose={() => setAsking(false)}
              title={`The mail to ${at.address} came back`}
              deed="It came back"
              reason="What was said, such as “no such mailbox”"
              run={async (why) => {
                await call(
                  api.POST("/api/mail/{id}/returned", { params: { path: { id: at.id } }, body: { why } }),
                );
                await queries.invalidateQueries({ queryKey: ["mail"] });
              }}
            />
          )}
        </>
      }
      slip={
        at ? (
          <div className="flex flex-col gap-3">
            <h2 className="text-base font-bold">{at.subject}</h2>
            <p className="text-faint">
              To {at.to}
              {at.address && `, ${at.address}`}. {at.sentAt ? `Sent ${clock(at.sentAt)}.` : ""}
            </p>
            {at.trouble && at.state !== "SENT" && (
              <p className="callout-wrong">
                {at.state === "WAITING" || at.state === "GIVEN_UP" ? "It failed" : "It came back"}:{" "}
                {at.trouble}
                {". "}
                {at.state === "WAITING" && `It is tried again at ${clock(at.nextTryAt)}.`}
              </p>
            )}
            <pre className="border-hair bg-sheet overflow-auto border p-3 font-sans whitespace-pre-wrap">
              {at.text}
            </pre>
            <Link className="go" to={at.link}>
              {at.advice ? "The check, and to send it again" : "Where its link leads"}
            </Link>
          </div>
        ) : (
          <p className="text-faint">Move the cursor onto a mail: its text appears here.</p>
        )
      }
    />
  );
}
