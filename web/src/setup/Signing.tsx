import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { Dialog } from "../parts/Dialog";
import { Entry, Form } from "../parts/Form";
import { PictureEntry } from "../parts/PictureEntry";
import { useKeptForm } from "../parts/useKeptForm";
import { useAgain, type Account } from "./BankAccountPage";

type Series = Schemas["AccountSeries"];

/** Who signs the checks of a series, and how large they may be. */
export function Signing({ series, account }: { series: Series; account: Account }) {
  const again = useAgain();
  const [asking, setAsking] = useState<"limits" | "picture" | "hand">();
  const leave = () => setAsking(undefined);
  const { pictured, upTo, secondAbove, most } = series.signing;
  return (
    <>
      <p className="text-faint">
        {pictured ? `A picture of a signature signs up to ${upTo}, by hand above.` : "Signed by hand."}{" "}
        {secondAbove && `Two sign above ${secondAbove}. `}
        {most ? `None is larger than ${most}.` : "No limit to a check."}
      </p>
      {account.maySign && !account.closedOn && (
        <p className="flex flex-wrap gap-x-4">
          <Button look="bare" onClick={() => setAsking("limits")}>
            Limit the checks…
          </Button>
          <Button look="bare" onClick={() => setAsking("picture")}>
            {pictured ? "Change the signature…" : "Sign by a picture…"}
          </Button>
          {pictured && (
            <Button look="bare" onClick={() => setAsking("hand")}>
              Sign by hand again…
            </Button>
          )}
        </p>
      )}
      <Dialog open={asking === "limits"} onClose={leave} title="Limits of these checks">
        <Limits series={series} currency={account.currency} onClose={leave} />
      </Dialog>
      <Dialog open={asking === "picture"} onClose={leave} title="A signature that is printed">
        <Picture series={series} currency={account.currency} onClose={leave} />
      </Dialog>
      <DeedDialog
        open={asking === "hand"}
        onClose={leave}
        title="Sign every check by hand"
        deed="Take the signature away"
        run={async () => {
          await call(api.POST("/api/series/{id}/signature/remove", { params: { path: { id: series.id } } }));
          await again();
        }}
      >
        <p>Checks that go to a printer from now on carry an empty line. What was printed stays as it is.</p>
      </DeedDialog>
    </>
  );
}

interface Asked {
  series: Series;
  currency: string;
  onClose: () => void;
}

function Limits({ series, currency, onClose }: Asked) {
  const again = useAgain();
  const form = useKeptForm(
    `limits ${series.id}`,
    { most: series.signing.most, secondAbove: series.signing.secondAbove },
    (body) => call(api.POST("/api/series/{id}/limits", { params: { path: { id: series.id } }, body })),
    {
      done: async () => {
        await again();
        onClose();
      },
      said: () => "It holds for every check that has no number yet.",
    },
  );
  return (
    <Form form={form} label="Limits" deed="Limit them so" onClose={onClose}>
      <Entry
        name="most"
        label={`The largest check, ${currency}; empty for any`}
        inputMode="decimal"
        autoFocus
      />
      <Entry
        name="secondAbove"
        label={`A second signature line above, ${currency}; empty for never`}
        inputMode="decimal"
      />
      <p className="text-faint">
        A payment above the largest check stays behind by name. The second line stands where the layout has
        its place.
      </p>
    </Form>
  );
}

function Picture({ series, currency, onClose }: Asked) {
  const again = useAgain();
  const form = useKeptForm(
    `signature ${series.id}`,
    { content: "", upTo: series.signing.upTo },
    (body) => call(api.POST("/api/series/{id}/signature", { params: { path: { id: series.id } }, body })),
    {
      secret: ["content"],
      done: async () => {
        await again();
        onClose();
      },
      said: () => "Each time it is printed stands in the trail, with the numbers.",
    },
  );
  return (
    <Form form={form} label="Signature" deed="Sign by this picture" onClose={onClose}>
      <PictureEntry
        name="content"
        label={series.signing.pictured ? "Another picture; none to change the limit only" : "A PNG or SVG"}
      />
      <Entry name="upTo" label={`Up to and with, ${currency}`} inputMode="decimal" />
      <p className="text-faint">
        It is kept sealed and goes to the printer only: no copy, preview or list shows it.
      </p>
    </Form>
  );
}
