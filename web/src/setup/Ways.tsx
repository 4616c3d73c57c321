import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { ChoiceEntry, Entry, Form } from "../parts/Form";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";
import { useAgain, type Account } from "./BankAccountPage";

type Series = Schemas["AccountSeries"];

/** The ways an account pays, each with its series of check numbers where it has one. */
export function Ways({ account }: { account: Account }) {
  const [adding, setAdding] = useState(false);
  const [correcting, setCorrecting] = useState<Series>();
  return (
    <section aria-label="Ways to pay">
      <div className="mb-2 flex items-center gap-3">
        <h2 className="text-base font-bold">Ways to pay</h2>
        {account.maySet && !account.closedOn && (
          <Button className="ml-auto" onClick={() => setAdding(true)}>
            Add checks with their numbers…
          </Button>
        )}
      </div>
      {account.ways.length === 0 && (
        <p className="text-brass">None yet: add checks with their first number, and batches can be made.</p>
      )}
      {account.ways.map((way) => (
        <div key={way.id} className="border-hair border-b py-2">
          <p>
            <b>{way.name}</b>
            {!way.series && <span className="text-faint">, by {way.words}</span>}
          </p>
          {way.series && <SeriesFacts series={way.series} />}
          {way.series?.correction ? (
            <Correction series={way.series} account={account} />
          ) : (
            way.series &&
            account.mayCorrect && (
              <Button look="bare" onClick={() => setCorrecting(way.series ?? undefined)}>
                Correct the next number…
              </Button>
            )
          )}
        </div>
      ))}
      <Dialog open={adding} onClose={() => setAdding(false)} title={`Checks of ${account.name}`} wide>
        <AddSeries account={account} onClose={() => setAdding(false)} />
      </Dialog>
      {correcting && (
        <Dialog open onClose={() => setCorrecting(undefined)} title="Correct the next number">
          <Propose series={correcting} onClose={() => setCorrecting(undefined)} />
        </Dialog>
      )}
    </section>
  );
}

function SeriesFacts({ series }: { series: Series }) {
  const mono = "font-mono text-[14px]";
  return (
    <p className="text-faint">
      On {series.stock}, {series.prefix && <span className={mono}>{series.prefix} </span>}
      from <span className={mono}>{series.first}</span>
      {series.last ? (
        <>
          {" "}
          to <span className={mono}>{series.last}</span>
        </>
      ) : null}
      ; the next is <b className={`${mono} text-ink`}>{series.next}</b>. MICR line{" "}
      <span className={mono}>{series.micr}</span>
      {series.validity && `, “${series.validity}”`}.
    </p>
  );
}

/** A next number that one person proposed and a second decides on. */
function Correction({ series, account }: { series: Series; account: Account }) {
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
    <div className="border-brass mt-1 border-l-4 pl-3">
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

function Propose({ series, onClose }: { series: Series; onClose: () => void }) {
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

const CHECKS = {
  wayName: "Checks",
  prefix: "",
  first: "",
  last: "",
  stock: "BLANK",
  micr: "C########C|KC",
  currencyWord: "dollars",
  validity: "Not valid after 180 days",
};

function AddSeries({ account, onClose }: { account: Account; onClose: () => void }) {
  const again = useAgain();
  const form = useKeptForm(
    `series ${account.id}`,
    CHECKS,
    (typed) =>
      call(
        api.POST("/api/bank-accounts/{id}/series", {
          params: { path: { id: account.id } },
          body: {
            ...typed,
            first: whole(typed.first) ?? 0,
            last: typed.last.trim() === "" ? undefined : (whole(typed.last) ?? 0),
            stock: typed.stock as Schemas["SeriesWanted"]["stock"],
          },
        }),
      ),
    {
      done: async () => {
        await again();
        onClose();
      },
      said: () => "Batches can be made and checks printed.",
    },
  );
  return (
    <Form form={form} label="Series" deed="Add these checks" onClose={onClose} className="gap-3">
      <div className="grid grid-cols-3 gap-3 max-[640px]:grid-cols-1">
        <Entry name="wayName" label="What this way to pay is called" />
        <Entry name="first" label="First number" inputMode="numeric" look="font-mono" autoFocus />
        <Entry name="last" label="Last number of the stock; empty: it goes on" look="font-mono" />
        <ChoiceEntry
          name="stock"
          label="Paper"
          choices={[
            { value: "BLANK", text: "blank: we print number and MICR line" },
            { value: "NUMBERED", text: "numbered: they are on the paper" },
          ]}
        />
        <Entry name="prefix" label="Prefix; empty for most" look="font-mono" />
        <Entry name="currencyWord" label="Word that ends the amount" />
        <Entry
          name="micr"
          className="col-span-2"
          label="MICR line left and right of the routing number: C on-us, # number, K account"
          look="font-mono"
        />
        <Entry name="validity" label="How long it is good for, in words" />
      </div>
    </Form>
  );
}

/** A whole number as it was typed; what is none is refused at its field, never read as another. */
function whole(text: string): number | undefined {
  return /^\d{1,9}$/.test(text.trim()) ? Number(text) : undefined;
}
