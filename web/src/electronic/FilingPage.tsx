import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Grid } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { AdvicePart } from "../mail/AdvicePart";
import { LevelStrip } from "../proof/LevelStrip";
import { UndoPart } from "../voiding/UndoPart";
import { FilesOfBatch } from "./FilesOfBatch";
import { COLUMNS, Stands } from "./filingRows";
import { taken, useFiling, type Filing, type FilingLine } from "./useFiling";

/** As many as one PDF holds. */
const MOST_ADVICES = 500;

/** The payments of a batch that go by file: into a file, to the bank, and what the bank said of each. */
export function FilingPage() {
  const id = Number(useParams().id);
  const batch = useQuery({
    queryKey: ["batch", id],
    queryFn: () => call(api.GET("/api/batches/{id}", { params: { path: { id } } })),
  });
  const filing = useFiling(id);
  return (
    <Loaded query={batch}>
      {(of) => <Loaded query={filing}>{(data) => <View key={id} batch={of} filing={data} />}</Loaded>}
    </Loaded>
  );
}

function View({ batch, filing }: { batch: Schemas["BatchView"]; filing: Filing }) {
  const queries = useQueryClient();
  const clerk = useSession().roles.includes("CLERK");
  const [values, change] = useAddress();
  const [selected, setSelected] = useState<Set<string>>(new Set());
  const [asking, setAsking] = useState<"file" | "out" | "announce">();
  const leave = () => setAsking(undefined);
  const show = async (next: Filing) => {
    queries.setQueryData(["filing", batch.id], next);
    setSelected(new Set());
    await Promise.all(
      [["work"], ["level", batch.id], ["batch", batch.id], ["batches"]].map((queryKey) =>
        queries.invalidateQueries({ queryKey }),
      ),
    );
  };
  const at = filing.payments.find((line) => String(line.claim) === values.at);
  const chosen = filing.payments.filter((line) =>
    selected.size > 0 ? selected.has(String(line.claim)) : line === at,
  );
  const removable = filing.fileable
    ? chosen.filter((line) => line.step === "WAITS" || line.step === "KEPT_BACK")
    : [];
  const part = selected.size > 0 ? chosen.filter((line) => line.step === "WAITS") : [];
  const path = { params: { path: { id: batch.id } } };
  const many = part.length > 0 ? part.length : filing.toFile;
  // of the selected ones, or of all
  const posted = filing.payments.flatMap((line) =>
    line.step === "POSTED" && line.payment && (selected.size === 0 || selected.has(String(line.claim)))
      ? [line.payment]
      : [],
  );
  const what = `${many} ${many === 1 ? "payment" : "payments"}`;
  return (
    <Station
      title={`File ${batch.name}`}
      sentence={<Sentence batch={batch} filing={filing} />}
      answer={<Figures batch={batch} filing={filing} />}
      list={
        <Grid
          list="filing"
          label="Payments"
          items={filing.payments.map((row) => ({ key: String(row.claim), row }))}
          columns={COLUMNS}
          cursor={values.at}
          onCursor={(key) => change({ at: key })}
          selected={selected}
          onSelect={setSelected}
          empty="No payment of this batch stands any more."
        />
      }
      bar={
        clerk && (
          <>
            {filing.toFile > 0 && (
              <Button look="deed" onClick={() => setAsking("file")}>
                Make the file of {what}…
              </Button>
            )}
            {filing.toAnnounce > 0 && (
              <Button onClick={() => setAsking("announce")}>
                Announce {filing.toAnnounce} {filing.toAnnounce === 1 ? "account" : "accounts"}…
              </Button>
            )}
            {filing.fileable && (
              <Button disabled={removable.length === 0} onClick={() => setAsking("out")}>
                Take out…
              </Button>
            )}
            {posted.length > 0 && (
              <a
                className="go"
                href={`/api/stubs/pdf?payments=${posted.slice(0, MOST_ADVICES).join(",")}`}
                target="_blank"
                rel="noreferrer"
              >
                Print the advice of {Math.min(posted.length, MOST_ADVICES)}
              </a>
            )}
            {taken(filing).length > 0 && (
              <Link to={`/post?at=${batch.id}`} className="go ml-auto font-bold">
                The bank took {taken(filing).length}: go to posting
              </Link>
            )}
          </>
        )
      }
      slip={
        <div className="flex flex-col gap-4">
          {at && <OnePayment line={at} />}
          <FilesOfBatch filing={filing} />
        </div>
      }
      strip={
        <>
          <LevelStrip batch={batch.id} />
          <DeedDialog
            open={asking === "file"}
            onClose={leave}
            title={`Make the file of ${what}`}
            deed={`Make the file of ${what}`}
            run={async () => {
              await show(
                await call(
                  api.POST("/api/batches/{id}/filing", {
                    ...path,
                    body: { claims: part.map((line) => line.claim) },
                  }),
                ),
              );
            }}
          >
            <ToBeFiled filing={filing} some={part} />
          </DeedDialog>
          <DeedDialog
            open={asking === "announce"}
            onClose={leave}
            title="Announce accounts to the bank"
            deed="Make the file that announces them"
            run={async () => {
              await show(await call(api.POST("/api/batches/{id}/filing/announce", path)));
            }}
          >
            <p>
              The bank wants {filing.toAnnounce === 1 ? "this account" : "these accounts"} announced by an
              entry of nothing before money goes there. The file pays nothing; hand it over like any other,
              and write down that the bank took it. Their payments can go some banking days later, or are
              taken out and paid another way.
            </p>
          </DeedDialog>
          <DeedDialog
            open={asking === "out"}
            onClose={leave}
            title={
              removable.length === 1
                ? `Take out the payment to ${removable[0]!.payee}`
                : `Take ${removable.length} payments out`
            }
            deed={removable.length === 1 ? "Take it out" : "Take them out"}
            grave
            reason="Why, as the trail keeps it"
            run={async (why) => {
              await show(
                await call(
                  api.POST("/api/batches/{id}/filing/take-out", {
                    ...path,
                    body: { claims: removable.map((line) => line.claim), why },
                  }),
                ),
              );
            }}
          >
            <p>
              {removable.length === 1 ? "Its invoices come" : "Their invoices come"} free for another batch;
              the other payments go on as they are.
            </p>
          </DeedDialog>
        </>
      }
    />
  );
}

function Sentence({ batch, filing }: { batch: Schemas["BatchView"]; filing: Filing }) {
  return (
    <>
      Pay <b>{batch.name}</b> by {filing.way} from {filing.accountName}, <b>{batch.stateWords}</b>
      {filing.paysOn && filing.toFile > 0 && (
        <>
          ; a file made now is paid on <b>{longDate(filing.paysOn)}</b>, and the bank takes files{" "}
          {filing.until}
        </>
      )}
      .
    </>
  );
}

function Figures({ batch, filing }: { batch: Schemas["BatchView"]; filing: Filing }) {
  const count = (step: FilingLine["step"]) => filing.payments.filter((one) => one.step === step).length;
  const behind = count("KEPT_BACK");
  const silent = count("IN_FILE");
  return (
    <>
      {filing.toFile > 0 && (
        <Figure value={filing.toFile}>
          for a file, {filing.toFileAmount} {filing.currency}
        </Figure>
      )}
      {silent > 0 && (
        <Figure value={silent} look="text-brass">
          of which the bank said nothing yet
        </Figure>
      )}
      {count("TAKEN") > 0 && <Figure value={count("TAKEN")}>taken, to be posted</Figure>}
      {behind > 0 && (
        <Figure value={behind} look="text-brass">
          kept back
        </Figure>
      )}
      {filing.notSetUp && <span className="text-rust">{filing.notSetUp}</span>}
      <Link className="go ml-auto" to={`/batches/${batch.id}`}>
        The batch
      </Link>
    </>
  );
}

/** What goes into the file that is about to be made. */
function ToBeFiled({ filing, some }: { filing: Filing; some: FilingLine[] }) {
  return (
    <div className="flex flex-col gap-2">
      {some.length === 0 ? (
        <p>
          <b>
            {filing.toFileAmount} {filing.currency}
          </b>{" "}
          from {filing.accountName}, paid on {longDate(filing.paysOn ?? "")}.
        </p>
      ) : (
        <p>
          To {some.map((line) => line.payee).join(", ")}, paid on {longDate(filing.paysOn ?? "")}. The others
          wait.
        </p>
      )}
      {some.length === 0 && filing.sizes.length > 1 && !filing.refused && (
        <p>
          It is more than the bank takes in one file: {filing.sizes.length} are made, of{" "}
          {filing.sizes.join(", ")} payments.
        </p>
      )}
      {some.length === 0 && filing.refused && <p className="callout text-brass">{filing.refused}</p>}
      <p className="text-faint">
        Each gets its reference. Nothing is sent yet: the file stands on the right, to be handed over. It
        cannot be changed any more; what the bank refuses goes into another one.
      </p>
    </div>
  );
}

/** One payment, and what is in its way. */
function OnePayment({ line }: { line: FilingLine }) {
  const clerk = useSession().roles.includes("CLERK");
  return (
    <section aria-label="Payment" className="flex flex-col gap-2">
      <h2 className="text-base font-bold">{line.payee}</h2>
      <p>
        <b>{line.amount}</b> to {line.bank}
        {line.called && (
          <>
            , reference <span className="font-mono">{line.called}</span>
          </>
        )}
        .
      </p>
      <p className={line.why ? "callout" : ""}>
        <Stands line={line} />
      </p>
      {line.step === "POSTED" && line.payment && (
        <AdvicePart key={line.payment} payment={line.payment} name={line.called} />
      )}
      {line.step === "POSTED" && line.payment && clerk && (
        <UndoPart key={line.payment} payment={line.payment} name={line.called} />
      )}
      {(line.step === "KEPT_BACK" || line.why) && (
        <p className="text-faint">
          Mend what is in its way and make a file again, or take it out: its invoices then come free for
          another batch.
        </p>
      )}
    </section>
  );
}
