import { useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";

/** By how much the printer is off, measured on the page that lies over the stock. */
export function Alignment({ page }: { page: Schemas["LayoutPage"] }) {
  const queries = useQueryClient();
  const form = useKeptForm(
    `alignment ${page.series}`,
    { right: page.alignment.right.toFixed(1), down: page.alignment.down.toFixed(1) },
    ({ right, down }) =>
      call(
        api.POST("/api/series/{id}/alignment", {
          params: { path: { id: page.series } },
          // what is no number is refused at its field
          body: { right: right as unknown as number, down: down as unknown as number },
        }),
      ),
    {
      done: (now) => queries.setQueryData(["layouts", page.series], now),
      said: () => "Checks are printed that much beside their place from now on.",
    },
  );
  return (
    <section aria-label="Alignment">
      <h2 className="mb-1 text-base font-bold">Alignment</h2>
      <p className="text-faint mb-2">
        Print{" "}
        <a className="go" href={`/api/series/${page.series}/alignment.pdf`} target="_blank" rel="noreferrer">
          the frames of the layout in force
        </a>{" "}
        on plain paper, lay it over a sheet of stock, and say by how many millimetres it has to move.
      </p>
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
    </section>
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
