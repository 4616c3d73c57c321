import { useInfiniteQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useMemo } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { clock } from "../parts/dates";
import { Download } from "../parts/Download";
import { Grid, type Column } from "../parts/Grid";
import { everyPage } from "../parts/PrintedList";
import { TrailSentence } from "./TrailSentence";
import { TrailFacts, factsInLine } from "./TrailFacts";

type Record = Schemas["TrailView"];

const COLUMNS: Column<Record>[] = [
  { key: "no", title: "No.", width: "56px", right: true, cell: (one) => one.sequence },
  { key: "when", title: "When", width: "136px", cell: (one) => clock(one.at) },
  { key: "who", title: "Who", width: "120px", cell: (one) => one.who },
  { key: "deed", title: "Deed", width: "minmax(178px,1fr)", cell: (one) => <b>{one.deed}</b> },
  { key: "to-what", title: "To what", width: "minmax(110px,1fr)", cell: (one) => one.name || one.subject },
  {
    key: "what-it-says",
    title: "What it says",
    width: "minmax(140px,1.6fr)",
    cell: (one) => <span className="text-faint text-note">{factsInLine(one.facts)}</span>,
  },
];

/** Where what a record is about is looked at, by its kind and its number. */
const PAGES: { [kind: string]: (key: string) => string } = {
  batch: (key) => `/batches/${key}`,
  vendor: (key) => `/vendors/${key}`,
  invoice: (key) => `/invoices/${key}`,
  check: (key) => `/register?series=all&text=${key}`,
  payment: (key) => `/undo?payments=${key}`,
  undoing: (key) => `/undo/${key}`,
  "bank account": (key) => `/bank-accounts/${key}`,
  "ledger file": (key) => `/ledger?view=hand-over&at=${key}`,
};

const itemsOf = (rows: Record[]) => rows.map((row) => ({ key: String(row.sequence), row }));

/** Every deed ever done here, with filters, and to take away. */
export function TrailPage() {
  const [values, change] = useAddress();
  const filter = {
    person: values.person ? Number(values.person) : undefined,
    deed: values.deed,
    subject: values.subject,
    from: values.from,
    until: values.until,
    text: values.text,
  };
  const pages = useInfiniteQuery({
    queryKey: ["trail", filter],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      call(api.GET("/api/trail", { params: { query: { ...filter, before: pageParam } } })),
    getNextPageParam: (last) => (last.length < 100 ? undefined : last[last.length - 1]?.sequence),
  });
  const records = useMemo(() => pages.data?.pages.flat() ?? [], [pages.data]);
  const items = useMemo(() => itemsOf(records), [records]);
  const at = records.find((one) => String(one.sequence) === values.at);
  return (
    <Station
      title="Trail"
      sentence={<TrailSentence values={values} change={change} />}
      answer={
        <>
          <Figure value={`${records.length}${pages.hasNextPage ? " and more" : ""}`}>records</Figure>
          {values.subject && (
            <span>
              of {values.subject}{" "}
              <Button look="bare" onClick={() => change({ subject: undefined })}>
                of everything
              </Button>
            </span>
          )}
          <span className="ml-auto">
            <Download path="/api/trail/csv" params={filter} />
            <Download path="/api/trail/jsonl" params={filter}>
              JSON Lines
            </Download>
          </span>
        </>
      }
      list={
        <Loaded query={pages}>
          {() => (
            <Grid
              list="trail"
              label="Records, newest first"
              items={items}
              all={async () => itemsOf((await everyPage(pages)).flat())}
              columns={COLUMNS}
              cursor={values.at}
              onCursor={(key) => change({ at: key })}
              onEnd={() => pages.hasNextPage && !pages.isFetching && void pages.fetchNextPage()}
              empty="No record fits. Ask for less in the sentence above."
            />
          )}
        </Loaded>
      }
      slip={
        at ? (
          <div className="flex flex-col gap-3">
            <h2 className="text-base font-bold">{at.deed}</h2>
            <p>
              {at.who}, {clock(at.at)}, from {at.from}.
            </p>
            <p>
              {at.name && `${at.kind} `}
              {PAGES[at.kind] && /^\d+$/.test(at.key) ? (
                <Link className="go" to={PAGES[at.kind]!(at.key)}>
                  {at.name || at.subject}
                </Link>
              ) : at.name ? (
                <b>{at.name}</b>
              ) : (
                at.subject
              )}
            </p>
            <Button look="bare" className="self-start" onClick={() => change({ subject: at.subject })}>
              Everything done to it
            </Button>
            <TrailFacts facts={at.facts} />
            <p className="text-faint text-note">
              Record {at.sequence}, hash <span className="font-mono break-all">{at.hash}</span>
            </p>
          </div>
        ) : (
          <p className="text-faint">
            Move the cursor onto a record. Both files end with the head hash of the whole trail: keep it
            outside, and the proof finds a trail that was cut off.
          </p>
        )
      }
    />
  );
}
