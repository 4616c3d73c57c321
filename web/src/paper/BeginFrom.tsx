import { useState } from "react";
import { useQuery } from "@tanstack/react-query";
import { api, call, Refused, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Field } from "../parts/Field";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";
import type { Layout } from "./measures";

const STANDARDS = (["LETTER", "A4"] as const).flatMap((page) =>
  (["TOP", "MIDDLE", "BOTTOM"] as const).map((place) => ({ page, place })),
);
const WORDS = {
  LETTER: "Letter",
  A4: "A4",
  TOP: "check on top",
  MIDDLE: "check in the middle",
  BOTTOM: "check at the bottom",
};

const standard = (one: (typeof STANDARDS)[number]) =>
  call(api.GET("/api/layouts/standard", { params: { query: { ...one, stubs: 2 } } }));
const emptied = (layout: Layout): Layout => ({ ...layout, check: [], stub: [], advice: [] });

/** Another layout in place of what is there: a version of any series, a standard one, or a file. It can be undone. */
export function BeginFrom({
  page,
  take,
  onClose,
}: {
  page: Schemas["LayoutPage"];
  take: (layout: Layout) => void;
  onClose: () => void;
}) {
  const [series, setSeries] = useState(page.series);
  const other = useQuery({
    queryKey: ["layouts", series],
    queryFn: () => call(api.GET("/api/series/{id}/layouts", { params: { path: { id: series } } })),
  });
  const [text, setText] = useState("");
  const taking = useDeed((find: () => Promise<Layout>) => find(), {
    done: (layout) => {
      take(layout);
      onClose();
    },
  });
  const begin = (find: () => Promise<Layout>) => void taking.must(find).catch(() => undefined);
  return (
    <div className="flex flex-col gap-5">
      <section aria-label="A version">
        <Field label="A version of the checks of">
          <select value={series} onChange={(event) => setSeries(Number(event.target.value))}>
            {page.others.map((one) => (
              <option key={one.series} value={one.series}>
                {one.name}
              </option>
            ))}
          </select>
        </Field>
        <ul className="mt-2">
          {other.data?.versions.map((one) => (
            <li key={one.version} className="border-hair flex items-baseline gap-3 border-b py-1">
              <span className="flex-1">
                <b>{one.version}</b>, {one.state}: “{one.why}”
              </span>
              <Button
                look="bare"
                onClick={() =>
                  begin(() =>
                    call(
                      api.GET("/api/series/{id}/layouts/{version}", {
                        params: { path: { id: series, version: one.version } },
                      }),
                    ),
                  )
                }
              >
                Begin from {one.version}
              </Button>
            </li>
          ))}
          {other.data?.versions.length === 0 && <li className="text-faint">It has none of its own yet.</li>}
        </ul>
      </section>
      <section aria-label="A standard one" className="flex flex-wrap gap-x-4">
        <h3 className="text-faint w-full">A standard one</h3>
        {STANDARDS.map((one) => (
          <Button key={`${one.page} ${one.place}`} look="bare" onClick={() => begin(() => standard(one))}>
            {WORDS[one.page]}, {WORDS[one.place]}
          </Button>
        ))}
        {STANDARDS.map((one) => (
          <Button
            key={`empty ${one.page} ${one.place}`}
            look="bare"
            onClick={() => begin(() => standard(one).then(emptied))}
          >
            {WORDS[one.page]}, {WORDS[one.place]}, empty
          </Button>
        ))}
      </section>
      <section aria-label="A file">
        <Field label="What stands in a layout's file">
          <textarea
            rows={4}
            className="font-mono text-note"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </Field>
        <div className="mt-2 flex items-center gap-3">
          <input
            type="file"
            aria-label="A layout's file"
            accept=".json"
            onChange={(event) => void event.target.files?.[0]?.text().then(setText)}
          />
          <Button
            className="ml-auto"
            disabled={!text.trim()}
            onClick={() => begin(() => read(page.series, text))}
          >
            Begin from the file
          </Button>
        </div>
      </section>
      <Refusal deed={taking} />
      <div className="flex justify-end">
        <Button onClick={onClose}>Not now</Button>
      </div>
    </div>
  );
}

/** The server reads it: it says in words what it cannot read. */
async function read(id: number, text: string): Promise<Layout> {
  let layout: Layout;
  try {
    layout = JSON.parse(text) as Layout;
  } catch {
    throw new Refused(0, "no-json", "This is no file of a layout: it is not whole. Copy all of it.", {});
  }
  const drawn = await call(
    api.POST("/api/series/{id}/layouts/draw", {
      params: { path: { id } },
      body: { layout, sample: "PAYMENT" },
    }),
  );
  return drawn.layout;
}
