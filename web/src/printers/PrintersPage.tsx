import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { Entry, Form } from "../parts/Form";
import { Grid, type Column } from "../parts/Grid";
import { Loaded } from "../parts/Loaded";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";

type Printer = Schemas["PrinterView"];
const KEY = ["printers"];

const COLUMNS: Column<Printer>[] = [
  { key: "name", title: "Printer", width: "minmax(160px,1.2fr)", cell: (p) => p.name },
  { key: "way", title: "How pages reach it", width: "minmax(200px,1.4fr)", cell: (p) => p.way },
  {
    key: "queue",
    title: "Queue",
    width: "minmax(140px,1fr)",
    cell: (p) => <span className="font-mono">{p.queue}</span>,
  },
  {
    key: "use",
    title: "In use",
    width: "100px",
    cell: (p) => (p.inUse ? "yes" : <span className="text-brass">no</span>),
  },
];

/** The printers that checks can be printed on. */
export function PrintersPage() {
  const session = useSession();
  const [values, change] = useAddress();
  const [asked, setAsked] = useState<Printer | "new">();
  const printers = useQuery({ queryKey: KEY, queryFn: () => call(api.GET("/api/printers")) });
  const may = session.roles.includes("ADMINISTRATOR");
  const rows = printers.data ?? [];
  const at = rows.find((one) => String(one.id) === values.at);
  return (
    <>
      <Station
        title="Printers"
        sentence={<>The printers that checks are printed on. How far each is off stands with the layout.</>}
        answer={<Figure value={rows.filter((one) => one.inUse).length}>in use</Figure>}
        list={
          <Loaded query={printers}>
            {(data) => (
              <Grid
                list="printers"
                label="Printers"
                items={data.map((row) => ({ key: String(row.id), row }))}
                columns={COLUMNS}
                cursor={values.at}
                onCursor={(key) => change({ at: key })}
                onEnter={(key) => may && setAsked(data.find((one) => String(one.id) === key))}
                dim={(one) => !one.inUse}
                empty="No printer."
              />
            )}
          </Loaded>
        }
        bar={
          may ? (
            <>
              {at && <UseIt printer={at} />}
              <Button disabled={!at} onClick={() => setAsked(at)}>
                Change…
              </Button>
              <Button look="deed" className="ml-auto" onClick={() => setAsked("new")}>
                Add a queue…
              </Button>
            </>
          ) : (
            <span className="text-faint ml-auto text-note">An administrator adds and changes these.</span>
          )
        }
      />
      <Dialog
        open={asked !== undefined}
        onClose={() => setAsked(undefined)}
        title={asked === "new" ? "Add a queue of the printing system" : `Change ${asked?.name ?? ""}`}
      >
        {asked && (
          <PrinterForm printer={asked === "new" ? undefined : asked} onClose={() => setAsked(undefined)} />
        )}
      </Dialog>
    </>
  );
}

/** Takes a printer in or out of use. */
function UseIt({ printer }: { printer: Printer }) {
  const queries = useQueryClient();
  const turning = useDeed(
    ({ id, name, queue, inUse }: Printer) =>
      call(
        api.POST("/api/printers/{id}", { params: { path: { id } }, body: { name, queue, inUse: !inUse } }),
      ),
    {
      done: (next) => queries.setQueryData(KEY, next),
      said: (_, { name, inUse }) =>
        inUse ? `Nothing is printed on ${name} any more.` : `${name} is in use.`,
    },
  );
  return (
    <Button disabled={turning.busy} onClick={() => void turning.run(printer)}>
      {printer.inUse ? "Take out of use" : "Take into use"}
    </Button>
  );
}

function PrinterForm({ printer, onClose }: { printer: Printer | undefined; onClose: () => void }) {
  const queries = useQueryClient();
  const form = useKeptForm(
    `printer ${printer?.id ?? "new"}`,
    { name: printer?.name ?? "", queue: printer?.queue ?? "" },
    (typed) =>
      printer
        ? call(
            api.POST("/api/printers/{id}", {
              params: { path: { id: printer.id } },
              body: { ...typed, inUse: printer.inUse },
            }),
          )
        : call(api.POST("/api/printers", { body: typed })),
    {
      done: (next) => {
        queries.setQueryData(KEY, next);
        onClose();
      },
      said: () => "Clerks choose it where they print.",
    },
  );
  const queued = !printer || printer.kind === "QUEUE";
  return (
    <Form
      form={form}
      label="Printer"
      deed={printer ? "Change it" : "Add it"}
      onClose={onClose}
      className="gap-3"
    >
      <Entry name="name" label="What people call it" maxLength={60} autoFocus />
      {queued && (
        <>
          <Entry name="queue" label="Its queue" maxLength={127} look="font-mono" />
          <p className="text-faint text-note">
            The name by which the printing system of this server knows it, as its list of queues shows it.
          </p>
        </>
      )}
    </Form>
  );
}
