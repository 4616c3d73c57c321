import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import { useDeed } from "../parts/useDeed";
import { Grid, type Column } from "../parts/Grid";

type Mail = Schemas["MailView"];

const STATES: Record<string, string> = { WAITING: "waits", SENT: "sent", GIVEN_UP: "given up" };
const COLUMNS: Column<Mail>[] = [
  { key: "to", title: "To", width: "minmax(110px,0.8fr)", cell: (one) => one.to },
  { key: "subject", title: "Subject", width: "minmax(180px,2fr)", cell: (one) => one.subject },
  {
    key: "state",
    title: "State",
    width: "minmax(84px,0.8fr)",
    cell: (one) =>
      one.trouble && one.state !== "SENT" ? (
        <span className="text-rust" title={one.trouble}>
          {one.state === "GIVEN_UP" ? "given up" : `fails, ${one.tries}×`}
        </span>
      ) : (
        STATES[one.state]
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
  const mail = useQuery({
    queryKey: ["mail"],
    queryFn: () => call(api.GET("/api/mail")),
    refetchInterval: 10_000,
  });
  return <Loaded query={mail}>{(data) => <MailList mail={data} />}</Loaded>;
}

function MailList({ mail }: { mail: Mail[] }) {
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
  const failing = mail.filter((one) => one.trouble && one.state !== "SENT");
  const may = session.roles.some((role) => role === "CONTROLLER" || role === "ADMINISTRATOR");
  return (
    <Station
      title="Mail"
      sentence={
        <>What was told to whom by mail. Work never waits for it, and nothing can be done from a mail.</>
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
          empty="No mail was written yet. Whoever is asked to approve is told by mail."
        />
      }
      bar={
        may && (
          <>
            <span className="text-faint text-note">
              A mail that fails is tried again, later and later, for about three days.
            </span>
            <Button
              className="ml-auto"
              disabled={!at || at.state === "SENT" || again.busy}
              onClick={() => void again.run(at!.id)}
            >
              Try it again now
            </Button>
          </>
        )
      }
      slip={
        at ? (
          <div className="flex flex-col gap-3">
            <h2 className="text-base font-bold">{at.subject}</h2>
            <p className="text-faint">
              To {at.to}, {at.address}. {at.sentAt ? `Sent ${clock(at.sentAt)}.` : ""}
            </p>
            {at.trouble && at.state !== "SENT" && (
              <p className="callout-wrong">
                The server said: {at.trouble}{" "}
                {at.state === "WAITING" && `It is tried again at ${clock(at.nextTryAt)}.`}
              </p>
            )}
            <pre className="border-hair bg-sheet overflow-auto border p-3 font-sans whitespace-pre-wrap">
              {at.text}
            </pre>
            <Link className="go" to={at.link}>
              Where its link leads
            </Link>
          </div>
        ) : (
          <p className="text-faint">Move the cursor onto a mail: its text appears here.</p>
        )
      }
    />
  );
}
