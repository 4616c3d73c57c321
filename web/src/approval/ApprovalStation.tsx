import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { useNavigate } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { clock, shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Grid } from "../parts/Grid";
import { useNarrow } from "../parts/useNarrow";
import { ChangeFacts } from "../vendors/ChangeFacts";
import { group, type Waiting, type Change, type Undoing, columns, NARROW } from "./waitingColumns";

/** What waits for whoever looks, since when and for how much; then what waits for others. */
export function ApprovalStation() {
  const waiting = useQuery({
    queryKey: ["approval"],
    queryFn: () => call(api.GET("/api/approval")),
    refetchInterval: 60_000,
  });
  const changes = useQuery({
    queryKey: ["vendor-changes"],
    queryFn: () => call(api.GET("/api/vendor-changes")),
  });
  const undoings = useQuery({
    queryKey: ["undoing"],
    queryFn: () => call(api.GET("/api/undoing")),
  });
  return (
    <Loaded query={waiting}>
      {(asked) => (
        <Loaded query={changes}>
          {(proposed) => (
            <Loaded query={undoings}>
              {(undone) => <Waits waiting={asked} changes={proposed} undoings={undone} />}
            </Loaded>
          )}
        </Loaded>
      )}
    </Loaded>
  );
}

export function Waits({
  waiting,
  changes,
  undoings,
}: {
  waiting: Schemas["DeskView"];
  changes: Change[];
  undoings: Undoing[];
}) {
  const session = useSession();
  const [values, change] = useAddress();
  const navigate = useNavigate();
  const narrow = useNarrow();
  const mine = waiting.batches.filter((one) => one.mine);
  const others = waiting.batches.filter((one) => !one.mine);
  const controller = session.roles.includes("CONTROLLER");
  const mayDecide = changes.filter((one) => controller && !one.mine);
  const mayUndo = undoings.filter((one) => one.mayDecide);
  const fresh = mayDecide.filter((one) => one.before.length === 0 && !one.typesAccount);
  const items = [
    ...group(
      "mine",
      `Waits for you (${mine.length + mayDecide.length + mayUndo.length})`,
      mine,
      mayDecide,
      mayUndo,
    ),
    ...group(
      "others",
      `Waits for others (${others.length + changes.length - mayDecide.length + undoings.length - mayUndo.length})`,
      others,
      changes.filter((one) => !mayDecide.includes(one)),
      undoings.filter((one) => !one.mayDecide),
    ),
  ];
  const cursor = values.at ?? (mine[0] ? `b${mine[0].id}` : mayDecide[0] ? `c${mayDecide[0].id}` : undefined);
  const at = items.find((item) => item.key === cursor);
  const row = at && "row" in at ? at.row : undefined;
  const open = (key: string) => {
    const found = items.find((item) => item.key === key);
    if (!found || !("row" in found)) return;
    const { batch, change: proposed, undoing } = found.row;
    navigate(
      batch ? `/approval/${batch.id}` : proposed ? `/vendors/${proposed.vendor}` : `/undo/${undoing.id}`,
    );
  };
  return (
    <Station
      title="Approval"
      sentence={
        <>
          What waits for <b>{session.name}</b> to approve, oldest first, and what waits for others.
        </>
      }
      answer={
        <>
          <Figure value={mine.length}>{mine.length === 1 ? "batch waits" : "batches wait"} for you</Figure>
          {waiting.mine.map((sum) => (
            <Figure key={sum.currency} value={`${sum.text} ${sum.currency}`} />
          ))}
          <Figure value={others.length}>for others</Figure>
          <Figure value={changes.length}>
            vendor {changes.length === 1 ? "change waits" : "changes wait"}
          </Figure>
        </>
      }
      list={
        <Grid
          list="approval"
          label="What waits"
          items={items}
          columns={narrow ? NARROW : columns(waiting.now)}
          cursor={cursor}
          onCursor={(key) => change({ at: key })}
          onEnter={open}
          dim={(one) => one.batch !== undefined && !one.batch.mine}
          empty="Nothing waits for approval. What clerks send appears here."
        />
      }
      bar={fresh.length > 1 && <ConfirmMany changes={fresh} />}
      slip={
        row?.batch ? (
          <BatchAsked batch={row.batch} onOpen={() => navigate(`/approval/${row.batch.id}`)} />
        ) : row?.change ? (
          <ChangeFacts change={row.change} />
        ) : row?.undoing ? (
          <UndoingAsked asked={row.undoing} onOpen={() => navigate(`/undo/${row.undoing.id}`)} />
        ) : (
          <p className="text-faint">Move the cursor onto a batch. Enter opens it.</p>
        )
      }
    />
  );
}

function UndoingAsked({ asked, onOpen }: { asked: Undoing; onOpen: () => void }) {
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-base font-bold">
        {asked.who} asks to {asked.asksTo}
      </h2>
      <ul>
        {asked.names.map((name) => (
          <li key={name}>{name}</li>
        ))}
        {asked.count > asked.names.length && <li>and {asked.count - asked.names.length} more</li>}
      </ul>
      <p>“{asked.reason}”</p>
      <p className="text-faint">A second person has to agree, who neither asked nor prepared the payment.</p>
      <Button className="self-start" onClick={onOpen}>
        Look at what it would do
      </Button>
    </div>
  );
}

/** First addresses, as a file of vendors brings them, are put in force in one deed. */
function ConfirmMany({ changes }: { changes: Change[] }) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  return (
    <>
      <span className="text-faint text-note">
        {changes.length} first addresses of vendors wait for a second person.
      </span>
      <Button className="ml-auto" onClick={() => setAsking(true)}>
        Confirm all {changes.length}…
      </Button>
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`Confirm ${changes.length} first addresses`}
        deed={`Confirm ${changes.length}`}
        run={async () => {
          const answer = await call(
            api.POST("/api/vendor-changes/confirm", { body: { ids: changes.map((one) => one.id) } }),
          );
          await queries.invalidateQueries();
          toast(`${answer.count} are in force.`);
        }}
      >
        <p className="mb-2">
          They can be paid from now on. For 30 days you approve no payment to any of them.
        </p>
        <ul className="border-hair max-h-72 overflow-auto border-t">
          {changes.map((one) => (
            <li key={one.id} className="border-hair border-b py-0.5">
              <b>{one.vendorName}</b>{" "}
              <span className="text-faint text-note">
                {one.after.slice(1).join(", ")}; by {one.proposedBy}
              </span>
            </li>
          ))}
        </ul>
      </DeedDialog>
    </>
  );
}

function BatchAsked({ batch, onOpen }: { batch: Waiting; onOpen: () => void }) {
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-base font-bold">{batch.name}</h2>
      <p>
        {batch.sentBy} asks for{" "}
        <b>
          {batch.amount.text} {batch.amount.currency}
        </b>{" "}
        in {batch.claims} {batch.claims === 1 ? "payment" : "payments"} from {batch.account}, by {batch.by} on{" "}
        {shortDate(batch.checkDate)}.
      </p>
      <p>
        Step {batch.step} of {batch.steps} of the route “{batch.route}”: {batch.stepName}. Sent{" "}
        {clock(batch.sentAt)}
        {batch.round > 1 && ", again"}.
      </p>
      {batch.marked > 0 && (
        <p className="text-brass">
          {batch.marked} {batch.marked === 1 ? "payment is" : "payments are"} marked for a look.
        </p>
      )}
      {batch.onBehalfOf && <p>You answer for {batch.onBehalfOf}, whose deputy you are.</p>}
      {batch.escalated && <p>Nobody answered in time, so the second line is asked as well.</p>}
      {!batch.mine && <p className="text-faint">{batch.whyNot}</p>}
      <Button look={batch.mine ? "deed" : "plain"} className="self-start" onClick={onOpen}>
        Look at it
      </Button>
    </div>
  );
}
