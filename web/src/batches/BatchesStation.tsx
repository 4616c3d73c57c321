import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Skeleton, Station, Trouble } from "../frame/Station";
import { Button } from "../parts/Button";
import { clock, shortDate } from "../parts/dates";
import { Grid, type Column } from "../parts/Grid";
import { ChoiceWord } from "../parts/Word";

type Listed = Schemas["ListedView"];
type State = "DRAFT" | "IN_APPROVAL" | "APPROVED" | "NUMBERED" | "POSTED" | "WITHDRAWN";

const CHOICES: { value: string; text: string; states: State[] }[] = [
  { value: "going", text: "going on", states: ["DRAFT", "IN_APPROVAL", "APPROVED", "NUMBERED"] },
  { value: "drafts", text: "drafts", states: ["DRAFT"] },
  { value: "posted", text: "posted", states: ["POSTED"] },
  { value: "withdrawn", text: "withdrawn", states: ["WITHDRAWN"] },
  { value: "all", text: "of every state", states: [] },
];

/** All batches, by state. */
export function BatchesStation() {
  const [values, change] = useAddress();
  const navigate = useNavigate();
  const choice = CHOICES.find((c) => c.value === values.show) ?? CHOICES[0]!;
  const list = useBatches(choice.states);
  const cursor = values.at;
  const at = list.data?.find((b) => String(b.id) === cursor);
  return (
    <Station
      title="Batches"
      sentence={
        <>
          Batches{" "}
          <ChoiceWord
            name="State"
            text={choice.text}
            value={choice.value}
            choices={CHOICES}
            onChange={(value) => change({ show: value, at: undefined })}
          />
          , newest first.
        </>
      }
      answer={
        list.data && <Figure value={list.data.length}>{list.data.length === 1 ? "batch" : "batches"}</Figure>
      }
      list={
        list.error ? (
          <Trouble error={list.error} />
        ) : !list.data ? (
          <Skeleton />
        ) : (
          <Grid
            label="Batches"
            items={list.data.map((row) => ({ key: String(row.id), row }))}
            columns={BATCH_COLUMNS}
            cursor={cursor}
            onCursor={(key) => change({ at: key })}
            onEnter={(key) => navigate(`/batches/${key}`)}
            empty="No batch here. Take invoices at Due and make one."
          />
        )
      }
      slip={
        at ? (
          <BatchSlip batch={at} />
        ) : (
          <p className="text-faint">Move the cursor onto a batch. Enter opens it.</p>
        )
      }
    />
  );
}

/** Batches in these states; all when none is named. */
export function useBatches(states: State[]) {
  return useQuery({
    queryKey: ["batches", states],
    queryFn: () => call(api.GET("/api/batches", { params: { query: { state: states } } })),
  });
}

export const BATCH_COLUMNS: Column<Listed>[] = [
  { title: "Batch", width: "minmax(180px,2fr)", cell: (b) => b.name },
  {
    title: "State",
    width: "130px",
    cell: (b) => (
      <span className={b.sentBackReason ? "text-brass" : ""}>
        {b.partlyPosted ? "partly posted" : b.sentBackReason ? "sent back" : b.stateWords}
      </span>
    ),
  },
  { title: "Account", width: "minmax(100px,1fr)", cell: (b) => b.account },
  { title: "Checks of", width: "94px", cell: (b) => shortDate(b.checkDate) },
  { title: "Claims", width: "56px", right: true, cell: (b) => b.claims },
  {
    title: "Amount",
    width: "110px",
    right: true,
    cell: (b) => (b.amount.currency === "USD" ? b.amount.text : `${b.amount.currency} ${b.amount.text}`),
  },
];

function BatchSlip({ batch }: { batch: Listed }) {
  const navigate = useNavigate();
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-base font-bold">{batch.name}</h2>
      <p>
        {batch.claims} {batch.claims === 1 ? "claim" : "claims"}, {batch.amount.text} {batch.amount.currency},
        checks of {shortDate(batch.checkDate)} from {batch.account}.
      </p>
      <p className="text-faint">
        Prepared by {batch.preparedBy}; last changed {clock(batch.changedAt)}.
      </p>
      {batch.sentBackReason && (
        <p className="border-brass border-l-4 pl-3">Sent back: {batch.sentBackReason}</p>
      )}
      <Button look="deed" className="self-start" onClick={() => navigate(`/batches/${batch.id}`)}>
        Open the batch
      </Button>
    </div>
  );
}
