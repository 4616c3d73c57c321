import { useState } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { useDeed } from "../parts/useDeed";
import { AddSeries } from "./AddSeries";
import { AddWay } from "./AddWay";
import { useAgain, type Account } from "./BankAccountPage";
import { FilesOfWay } from "./FilesOfWay";
import { Signing } from "./Signing";
import { StockRoom } from "./StockRoom";
import { Correction, Propose } from "./NextNumber";

type Series = Schemas["AccountSeries"];

/** The ways an account pays, each with its series of check numbers where it has one. */
export function Ways({ account }: { account: Account }) {
  const [adding, setAdding] = useState<"checks" | "way">();
  const leave = () => setAdding(undefined);
  const [correcting, setCorrecting] = useState<Series>();
  return (
    <section aria-label="Ways to pay">
      <div className="mb-2 flex items-center gap-3">
        <h2 className="text-base font-bold">Ways to pay</h2>
        {account.maySet && !account.closedOn && (
          <>
            <Button className="ml-auto" onClick={() => setAdding("checks")}>
              Add checks with their numbers…
            </Button>
            <Button onClick={() => setAdding("way")}>Add another way…</Button>
          </>
        )}
      </div>
      {account.ways.length === 0 && (
        <p className="text-brass">None yet: add checks with their first number, and batches can be made.</p>
      )}
      {account.ways.map((way) => (
        <div key={way.id} className="border-hair border-b py-2">
          <p>
            <b>{way.name}</b>
            {!way.series && (
              <span className="text-faint">
                , by {way.words}
                {way.elsewhere && ", made elsewhere and recorded here"}
                {way.owed && `; owed to ${way.owed}`}
              </span>
            )}
          </p>
          {way.byFile && <FilesOfWay account={account} way={way.id} name={way.name} />}
          {way.series && <SeriesFacts series={way.series} />}
          {way.series?.printed && (
            <Link className="go mr-4 inline-block min-h-6" to={`/layouts/${way.series.id}`}>
              How they stand on paper
            </Link>
          )}
          {way.series?.printed && <Signing series={way.series} account={account} />}
          {way.series?.printed && !way.series.printsNumbers && <StockRoom series={way.series.id} />}
          {way.series && <Reprints series={way.series} account={account} />}
          {way.series?.correction ? (
            <Correction series={way.series} account={account} />
          ) : (
            way.series?.printed &&
            account.mayCorrect && (
              <Button look="bare" onClick={() => setCorrecting(way.series ?? undefined)}>
                Correct the next number…
              </Button>
            )
          )}
        </div>
      ))}
      <Dialog open={adding === "checks"} onClose={leave} title={`Checks of ${account.name}`} wide>
        <AddSeries account={account} onClose={leave} />
      </Dialog>
      <Dialog open={adding === "way"} onClose={leave} title={`Another way to pay from ${account.name}`}>
        <AddWay account={account} onClose={leave} />
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
  const mono = "font-mono text-body";
  return (
    <p className="text-faint">
      {series.printed ? `On ${series.stock}` : "A check book, written by hand and recorded here"}, from{" "}
      <span className={mono}>
        {series.prefix}
        {series.first}
      </span>
      {series.last ? (
        <>
          {" "}
          to <span className={mono}>{series.last}</span>
        </>
      ) : null}
      {series.printed && (
        <>
          ; the next is <b className={`${mono} text-ink`}>{series.next}</b>. MICR line{" "}
          <span className={mono}>{series.micr}</span>
          {series.validity && `, “${series.validity}”`}
        </>
      )}
      .
    </p>
  );
}

/** Whether a damaged sheet may be printed again on its own number; the company decides. */
function Reprints({ series, account }: { series: Series; account: Account }) {
  const again = useAgain();
  const setting = useDeed(
    (allowed: boolean) =>
      call(api.POST("/api/series/{id}/reprints", { params: { path: { id: series.id } }, body: { allowed } })),
    { done: again, failed: again },
  );
  if (!series.printsNumbers) return null;
  return (
    <p className="text-faint flex items-baseline gap-3">
      {series.sameNumberReprint
        ? "A damaged sheet may be printed again on its own number."
        : "A damaged sheet uses its number up."}
      {account.maySet && !account.closedOn && (
        <Button
          look="bare"
          className="min-h-6 py-0"
          disabled={setting.busy}
          onClick={() => void setting.run(!series.sameNumberReprint)}
        >
          {series.sameNumberReprint ? "Always take a new number" : "Allow its own number again"}
        </Button>
      )}
    </p>
  );
}
