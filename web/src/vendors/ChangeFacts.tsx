import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { clock, shortDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { useDeed } from "../parts/useDeed";
import { BankFields, NO_BANK } from "./BankFields";

type Change = Schemas["ChangeView"];

const DECIDED: Record<string, string> = {
  CONFIRMED: "confirmed",
  REFUSED: "refused",
  TAKEN_BACK: "taken back",
};

/** One change of a vendor, before and after, with what may be done about it. */
export function ChangeFacts({ change, here = false }: { change: Change; here?: boolean }) {
  const session = useSession();
  const queries = useQueryClient();
  const [asking, setAsking] = useState<"confirm" | "refuse">();
  const [typed, setTyped] = useState(NO_BANK);
  const path = { params: { path: { id: change.id } } };
  const waits = change.state === "PROPOSED";
  const controller = session.roles.includes("CONTROLLER");
  const done = async (said: string) => {
    await queries.invalidateQueries();
    toast(said, { duration: 8000 });
  };
  const takingBack = useDeed(() => call(api.POST("/api/vendor-changes/{id}/take-back", path)), {
    done: () => done("Taken back."),
  });
  return (
    <article className="flex flex-col gap-2">
      <h3 className="font-bold">
        {!here && (
          <>
            <Link className="go" to={`/vendors/${change.vendor}`}>
              {change.vendorName}
            </Link>
            :{" "}
          </>
        )}
        {change.what}
      </h3>
      <table className="w-full">
        <tbody>
          {change.before.length > 0 && <Side name="before" lines={change.before} bank={change.beforeBank} />}
          <Side
            name={waits ? "wanted" : "after"}
            lines={change.after}
            bank={change.afterBank}
            other={change.before.length > 0 ? [...change.before, change.beforeBank] : undefined}
          />
        </tbody>
      </table>
      <p>“{change.why}”</p>
      <p className="text-faint text-note">
        Proposed by {change.proposedBy}, {clock(change.proposedAt)}
        {!waits &&
          `; ${DECIDED[change.state] ?? "decided"}${change.state === "TAKEN_BACK" ? "" : ` by ${change.decidedBy}`}${change.decidedOn ? `, ${shortDate(change.decidedOn)}` : ""}`}
        .{change.decidedWhy && ` “${change.decidedWhy}”`}
      </p>
      {waits && controller && !change.mine && (
        <div className="flex gap-2">
          <Button look="deed" onClick={() => setAsking("confirm")}>
            Confirm…
          </Button>
          <Button onClick={() => setAsking("refuse")}>Refuse it…</Button>
        </div>
      )}
      {waits && change.mine && (
        <>
          <p className="text-faint">You proposed it; somebody else confirms or refuses.</p>
          <Button className="self-start" disabled={takingBack.busy} onClick={() => void takingBack.run()}>
            Take it back
          </Button>
        </>
      )}
      {waits && !controller && !change.mine && (
        <p className="text-faint">It waits for a controller other than {change.proposedBy}.</p>
      )}
      <DeedDialog
        open={asking === "confirm"}
        onClose={() => setAsking(undefined)}
        title={`Confirm the ${change.what} of ${change.vendorName}`}
        deed="Confirm the change"
        run={async () => {
          const answer = await call(api.POST("/api/vendor-changes/{id}/confirm", { ...path, body: typed }));
          await done(
            answer.batches.length === 0
              ? "The change is in force."
              : `In force. The payment in ${answer.batches.join(", ")} was asked with the old data: it is refused until it is sent again.`,
          );
        }}
      >
        <p>
          Payments sent for approval from now on use it, and are marked for 30 days. For as long neither you
          nor {change.proposedBy} can approve a payment to this vendor.
        </p>
        {change.typesAccount && (
          <>
            <p className="mt-2">
              Type the bank details as the vendor itself gives them, in its letter or when you call a number
              you knew before: they are not shown here, and both must agree.
            </p>
            <div className="mt-2">
              <BankFields value={typed} onChange={setTyped} />
            </div>
          </>
        )}
      </DeedDialog>
      <DeedDialog
        open={asking === "refuse"}
        onClose={() => setAsking(undefined)}
        title={`Refuse the ${change.what} of ${change.vendorName}`}
        deed="Refuse the change"
        reason="Why not"
        run={async (reason) => {
          await call(api.POST("/api/vendor-changes/{id}/refuse", { ...path, body: { reason } }));
          await done("Refused; nothing changed.");
        }}
      />
    </article>
  );
}

/** Lines that differ from the other side stand out. */
function Side({
  name,
  lines,
  bank,
  other,
}: {
  name: string;
  lines: string[];
  bank: string;
  other?: string[];
}) {
  const fresh = (text: string) => other !== undefined && !other.includes(text);
  return (
    <tr className="align-top">
      <th scope="row" className="text-faint w-16 text-left text-note font-normal">
        {name}
      </th>
      <td className="pb-1">
        {lines.map((line, i) => (
          <div key={i} className={fresh(line) ? "font-bold" : ""}>
            {line}
          </div>
        ))}
        <div className={`text-note ${fresh(bank) ? "font-bold" : "text-faint"}`}>
          {bank || "no bank details"}
        </div>
      </td>
    </tr>
  );
}
