import { api, call, type Schemas } from "../api/client";
import { ChoiceWord } from "../parts/Word";
import { useDeed } from "../parts/useDeed";

type Delivery = Schemas["DeliveryWanted"]["delivery"];

const WAYS: { value: Delivery; text: string }[] = [
  { value: "MAIL", text: "by mail" },
  { value: "HAND_OVER", text: "handed over" },
  { value: "COURIER", text: "by courier" },
];

/** How the chosen checks reach their payees. */
export function Goes({
  batch,
  claims,
  onDone,
}: {
  batch: number;
  claims: number[];
  onDone: (next: Schemas["PrintingView"]) => Promise<void>;
}) {
  const saying = useDeed(
    (delivery: Delivery) =>
      call(
        api.POST("/api/batches/{id}/delivery", {
          params: { path: { id: batch } },
          body: { claims, delivery },
        }),
      ),
    { line: `delivery ${batch}`, done: onDone },
  );
  return (
    <ChoiceWord<Delivery | "">
      name="How they go"
      text={claims.length === 1 ? "It goes…" : `These ${claims.length} go…`}
      value=""
      choices={WAYS}
      onChange={(delivery) => {
        if (delivery) void saying.run(delivery);
      }}
    />
  );
}
