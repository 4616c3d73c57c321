import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { Entry, Form } from "../parts/Form";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";
import { whole } from "./whole";

type Stock = Schemas["StockView"];

/** The boxes of numbered stock: what came in, what is open, what never came. */
export function StockRoom({ series }: { series: number }) {
  const queries = useQueryClient();
  const [receiving, setReceiving] = useState(false);
  const key = ["stock", series];
  const path = { params: { path: { id: series } } };
  const stock = useQuery({ queryKey: key, queryFn: () => call(api.GET("/api/series/{id}/stock", path)) });
  const show = (next: Stock) => queries.setQueryData(key, next);
  const opening = useDeed(
    (box: number) =>
      call(api.POST("/api/series/{id}/stock/{box}/open", { params: { path: { id: series, box } } })),
    { done: show },
  );
  if (!stock.data) return stock.error ? <p className="text-rust">{stock.error.message}</p> : null;
  const { boxes, gaps, left, foretold, mayKeep } = stock.data;
  return (
    <section aria-label="Boxes of stock" className="my-1">
      <p className="text-faint">
        {boxes.length === 0
          ? "No box of its stock was entered; with them the next number in the tray is foretold."
          : `${left} sheets are left. ${foretold}`}
      </p>
      {boxes.length > 0 && (
        <ul className="my-1">
          {boxes.map((box) => (
            <li key={box.id} className="flex min-h-7 items-center gap-3">
              <span className="font-mono">
                {box.first} to {box.last}
              </span>
              <span className="text-faint">{box.used ? "used up" : box.opened ? "open" : "closed"}</span>
              {mayKeep && !box.opened && !box.used && (
                <Button look="bare" disabled={opening.busy} onClick={() => void opening.run(box.id)}>
                  It is open now
                </Button>
              )}
            </li>
          ))}
          {gaps.map((gap) => (
            <li key={`gap ${gap.first}`} className="text-brass">
              <span className="font-mono">
                {gap.first} to {gap.last}
              </span>{" "}
              never came
            </li>
          ))}
        </ul>
      )}
      {mayKeep && (
        <Button look="bare" onClick={() => setReceiving(true)}>
          Receive a box…
        </Button>
      )}
      <Dialog open={receiving} onClose={() => setReceiving(false)} title="A box of stock came in">
        <Receive series={series} onDone={show} onClose={() => setReceiving(false)} />
      </Dialog>
    </section>
  );
}

function Receive({
  series,
  onDone,
  onClose,
}: {
  series: number;
  onDone: (next: Stock) => void;
  onClose: () => void;
}) {
  const form = useKeptForm(
    `box ${series}`,
    { first: "", last: "" },
    ({ first, last }) =>
      call(
        api.POST("/api/series/{id}/stock", {
          params: { path: { id: series } },
          // what is no number is refused at its field
          body: { first: whole(first) ?? -1, last: whole(last) ?? -1 },
        }),
      ),
    {
      done: (next) => {
        onDone(next);
        onClose();
      },
      said: () => "Whoever prints next reads what to expect in the tray.",
    },
  );
  return (
    <Form form={form} label="Box" deed="Receive it" onClose={onClose}>
      <Entry name="first" label="Its first number" inputMode="numeric" look="font-mono" autoFocus />
      <Entry name="last" label="Its last number" inputMode="numeric" look="font-mono" />
    </Form>
  );
}
