import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Entry, Form } from "../parts/Form";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";
import { useAgain, type Account } from "./BankAccountPage";
import { whole } from "./whole";

type Series = Schemas["AccountSeries"];

/** A next number that one person proposed and a second decides on. */
export function Correction({ series, account }: { series: Series; account: Account }) {
  const again = useAgain();
  const path = { params: { path: { id: series.id } } };
  const confirming = useDeed(() => call(api.POST("/api/series/{id}/next-number/confirm", path)), {
    done: again,
    failed: again,
    said: () => "The numbers passed over are unaccounted for, with the reason.",
  });
  const refusing = useDeed(() => call(api.POST("/api/series/{id}/next-number/refuse", path)), {
    done: again,
    failed: again,
  });
  const waiting = series.correction;
  if (!waiting) return null;
  return (
    <div className="callout mt-1">
      <p>
        {waiting.who} proposes <b className="font-mono">{waiting.to}</b> as the next number: “{waiting.reason}
        ”. It waits for a second person.
      </p>
      {account.mayCorrect && (
        <div className="mt-1 flex gap-2">
          {!waiting.mine && (
            <Button look="deed" disabled={confirming.busy} onClick={() => void confirming.run()}>
              Confirm {waiting.to}
            </Button>
          )}
          <Button disabled={refusing.busy} onClick={() => void refusing.run()}>
            {waiting.mine ? "Take it back" : "Refuse it"}
          </Button>
        </div>
      )}
    </div>
  );
}

/** One person says which number should be next; a second decides. */
export function Propose({ series, onClose }: { series: Series; onClose: () => void }) {
  const again = useAgain();
  const form = useKeptForm(
    `next number ${series.id}`,
    { next: "", reason: "" },
    (typed) =>
      call(
        api.POST("/api/series/{id}/next-number", {
          params: { path: { id: series.id } },
          body: { next: whole(typed.next) ?? 0, reason: typed.reason },
        }),
      ),
    {
      done: async () => {
        await again();
        onClose();
      },
      said: () => "A second person confirms it. Until then nothing changes.",
    },
  );
  return (
    <Form form={form} label="Next number" deed="Propose it" onClose={onClose}>
      <p>
        The next number is <b className="font-mono">{series.next}</b>. Numbers passed over are never used: the
        register says why.
      </p>
      <Entry
        name="next"
        label="The next number should be"
        inputMode="numeric"
        look="w-40 font-mono"
        autoFocus
      />
      <Entry name="reason" label="What became of those before it" />
    </Form>
  );
}
