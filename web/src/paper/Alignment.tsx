import { useState } from "react";
import { useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Entry, Form } from "../parts/Form";
import { ChoiceWord } from "../parts/Word";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";

/** By how much each printer is off, measured on the page that lies over the stock. */
export function Alignment({ page }: { page: Schemas["LayoutPage"] }) {
  const [chosen, setChosen] = useState<number>();
  const one = page.alignments.find((of) => of.printer === chosen) ?? page.alignments[0];
  if (!one) return null;
  const sheet = `/api/series/${page.series}/alignment.pdf?printer=${one.printer}`;
  return (
    <section aria-label="Alignment">
      <h2 className="mb-1 text-base font-bold">Alignment</h2>
      {page.alignments.length > 1 && (
        <p className="mb-2">
          Of{" "}
          <ChoiceWord
            name="Printer"
            text={one.name}
            value={String(one.printer)}
            choices={page.alignments.map((of) => ({
              value: String(of.printer),
              text: of.name,
              detail: of.right || of.down ? `${of.right.toFixed(1)}, ${of.down.toFixed(1)} mm` : "",
            }))}
            onChange={(id) => setChosen(Number(id))}
          />
          , with this paper.
        </p>
      )}
      <p className="text-faint mb-2">
        Print{" "}
        <a className="go" href={sheet} target="_blank" rel="noreferrer">
          the frames of the layout in force
        </a>{" "}
        on plain paper, lay it over a sheet of stock, and say by how many millimetres it has to move.
        {one.takesPages && page.mayAlign && <PrintFrames series={page.series} printer={one} />}
      </p>
      <Offset key={one.printer} page={page} of={one} />
    </section>
  );
}

/** Sends the page where the checks will come out. */
function PrintFrames({ series, printer }: { series: number; printer: Schemas["AlignmentView"] }) {
  const printing = useDeed(
    () =>
      call(
        api.POST("/api/series/{id}/alignment/print", {
          params: { path: { id: series } },
          body: { printer: printer.printer },
        }),
      ),
    { said: () => `${printer.name} took the page.` },
  );
  return (
    <Button look="bare" disabled={printing.busy} onClick={() => void printing.run()}>
      Print it on {printer.name}
    </Button>
  );
}

function Offset({ page, of }: { page: Schemas["LayoutPage"]; of: Schemas["AlignmentView"] }) {
  const queries = useQueryClient();
  const form = useKeptForm(
    `alignment ${page.series} ${of.printer}`,
    { right: of.right.toFixed(1), down: of.down.toFixed(1) },
    ({ right, down }) =>
      call(
        api.POST("/api/series/{id}/alignment", {
          params: { path: { id: page.series } },
          // what is no number is refused at its field
          body: { printer: of.printer, right: right as unknown as number, down: down as unknown as number },
        }),
      ),
    {
      done: (now) => queries.setQueryData(["layouts", page.series], now),
      said: () => `Checks are printed that much beside their place on ${of.name} from now on.`,
    },
  );
  return (
    <Form
      form={form}
      label="Alignment"
      deed="Set it"
      leave="Leave it as it was"
      readOnly={!page.mayAlign}
      className="gap-3"
    >
      <div className="grid grid-cols-2 gap-3">
        <Entry name="right" label="To the right" inputMode="decimal" look="w-full text-right" small />
        <Entry name="down" label="Downwards" inputMode="decimal" look="w-full text-right" small />
      </div>
    </Form>
  );
}

/** Which paper a clerk loads for these checks; asked for where they are printed. */
export function Loading({ page }: { page: Schemas["LayoutPage"] }) {
  const queries = useQueryClient();
  const form = useKeptForm(
    `loading ${page.series}`,
    { loading: page.loading },
    (body) => call(api.POST("/api/series/{id}/loading", { params: { path: { id: page.series } }, body })),
    {
      done: (now) => queries.setQueryData(["layouts", page.series], now),
      said: () => "Whoever prints these checks reads it before and afterwards.",
    },
  );
  return (
    <section aria-label="Paper">
      <h2 className="mb-1 text-base font-bold">Paper</h2>
      <Form
        form={form}
        label="Paper"
        deed="Say it"
        leave="Leave it as it was"
        readOnly={!page.mayAlign}
        className="gap-3"
      >
        <Entry name="loading" label="What to load for these checks, and where" small maxLength={120} />
      </Form>
    </section>
  );
}
