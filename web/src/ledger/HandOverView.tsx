import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { TrailFold } from "../audit/TrailOf";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { clock, longDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Dialog } from "../parts/Dialog";
import { Download } from "../parts/Download";
import { DayEntry, Form } from "../parts/Form";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";

type File = Schemas["LedgerFileView"];

const LOOKS: Record<string, string> = { MADE: "text-brass", TAKEN_BACK: "text-faint" };
const sums = (of: File["debits"]) => of.map((sum) => `${sum.text} ${sum.currency}`).join(" and ");

const COLUMNS: Column<File>[] = [
  { key: "file", title: "File", width: "60px", right: true, cell: (file) => file.id },
  {
    key: "up-to",
    title: "Entries up to",
    width: "122px",
    value: (file) => file.upTo,
    cell: (file) => longDate(file.upTo),
  },
  { key: "entries", title: "Entries", width: "72px", right: true, cell: (file) => file.entries },
  {
    key: "debits",
    title: "Debits",
    width: "minmax(262px,1.6fr)",
    right: true,
    cell: (file) => sums(file.debits),
  },
  {
    key: "state",
    title: "State",
    width: "minmax(110px,1fr)",
    cell: (file) => <span className={LOOKS[file.state] ?? ""}>{file.stateWords}</span>,
  },
  { key: "made-by", title: "Made by", width: "108px", cell: (file) => file.madeBy },
];

/** Entries handed to the company's general ledger: what waits, and what became of each file. */
export function HandOverView({ word }: { word: ReactNode }) {
  const { roles } = useSession();
  const [values, change] = useAddress();
  const [making, setMaking] = useState(false);
  const all = useQuery({
    queryKey: ["ledger-files"],
    queryFn: () => call(api.GET("/api/ledger-files")),
  });
  const may = roles.includes("CLERK") || roles.includes("CONTROLLER");
  const file = all.data?.files.find((one) => String(one.id) === values.at);
  return (
    <Station
      title="Hand-over to the general ledger"
      sentence={<>The {word} of entries to the company’s general ledger, each of them once.</>}
      answer={
        all.data && (
          <>
            <Figure value={all.data.waiting} look={all.data.waiting > 0 ? "text-brass" : ""}>
              {all.data.waiting === 1 ? "entry waits" : "entries wait"}
              {all.data.from &&
                all.data.to &&
                `, dated ${longDate(all.data.from)} to ${longDate(all.data.to)}`}
            </Figure>
            {all.data.debits.length > 0 && <Figure value={sums(all.data.debits)}>of debits</Figure>}
          </>
        )
      }
      list={
        <Loaded query={all}>
          {(data) => (
            <Grid
              list="ledger-files"
              label="Files of entries"
              items={data.files.map((row) => ({ key: String(row.id), row }))}
              columns={COLUMNS}
              cursor={values.at}
              onCursor={(key) => change({ at: key })}
              dim={(one) => one.state === "TAKEN_BACK"}
              empty="Nothing was handed over yet. A file holds every entry that waits, up to a day."
            />
          )}
        </Loaded>
      }
      bar={
        may && (
          <>
            <Button
              look="deed"
              className="ml-auto"
              disabled={!all.data?.waiting}
              onClick={() => setMaking(true)}
            >
              Hand entries over…
            </Button>
            <Dialog open={making} onClose={() => setMaking(false)} title="Hand entries over">
              <HandOver onClose={() => setMaking(false)} onMade={(id) => change({ at: String(id) })} />
            </Dialog>
          </>
        )
      }
      slip={
        file ? (
          <FileSlip key={file.id} file={file} may={may} />
        ) : (
          <p className="text-faint">Move the cursor onto a file: what became of it stands here.</p>
        )
      }
    />
  );
}

function HandOver({ onClose, onMade }: { onClose: () => void; onMade: (id: number) => void }) {
  const { today } = useSession();
  const queries = useQueryClient();
  const form = useKeptForm(
    "hand entries over",
    { upTo: today },
    (typed) => call(api.POST("/api/ledger-files", { body: typed })),
    {
      done: async (id) => {
        await queries.invalidateQueries();
        onMade(id);
        onClose();
      },
      said: (id) => `File ${id} is made. Take it to the general ledger, then say whether it took it.`,
    },
  );
  return (
    <Form form={form} label="Hand entries over" deed="Make the file" onClose={onClose}>
      <p>
        Every entry that waits, with a ledger date up to this day. It stands in no other file from then on.
      </p>
      <DayEntry name="upTo" label="Up to" />
    </Form>
  );
}

function FileSlip({ file, may }: { file: File; may: boolean }) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  const params = { path: { id: file.id } };
  const taken = useDeed(() => call(api.POST("/api/ledger-files/{id}/taken", { params })), {
    done: () => queries.invalidateQueries(),
    said: () => `File ${file.id} is taken by the general ledger.`,
  });
  return (
    <div className="flex flex-col gap-4">
      <h2 className="text-base font-bold">
        File {file.id}, {file.stateWords}
      </h2>
      <p>
        <b>{file.entries}</b> {file.entries === 1 ? "entry" : "entries"} up to {longDate(file.upTo)},{" "}
        {sums(file.debits)} of debits and as much of credits. Made by {file.madeBy}, {clock(file.madeAt)}.
      </p>
      {file.answeredBy && file.answeredAt && (
        <p>
          {file.answeredBy}, {clock(file.answeredAt)}
          {file.why && `: “${file.why}”`}
        </p>
      )}
      {file.state === "TAKEN_BACK" ? (
        <p className="text-faint">Its entries wait again, or went into a later file.</p>
      ) : (
        <p>
          <Download path={`/api/ledger-files/${file.id}/csv`}>The file as CSV</Download>
        </p>
      )}
      {file.state === "MADE" && may && (
        <div className="flex gap-2">
          <Button look="deed" disabled={taken.busy} onClick={() => void taken.run()}>
            The general ledger took it
          </Button>
          <Button onClick={() => setAsking(true)}>Take it back…</Button>
        </div>
      )}
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`Take file ${file.id} back`}
        deed={`Take file ${file.id} back`}
        reason="Why it is taken back"
        run={async (reason) => {
          await call(api.POST("/api/ledger-files/{id}/take-back", { params, body: { reason } }));
          await queries.invalidateQueries();
          toast(`File ${file.id} is taken back; its entries wait again.`);
        }}
      >
        <p>
          Only where the general ledger did not take it: its entries wait again, and go into the next file.
        </p>
      </DeedDialog>
      <TrailFold subject={`ledger file ${file.id}`} name={`file ${file.id}`} />
    </div>
  );
}
