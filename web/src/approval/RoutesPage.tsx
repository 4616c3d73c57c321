import { useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { clock, longDate } from "../parts/dates";
import { useDeed } from "../parts/useDeed";
import { useKept } from "../parts/useKept";
import { ChoiceWord } from "../parts/Word";
import { FIRST } from "./firstRoutes";
import { ConfirmRoutes, KeepRoutes } from "./KeepRoutes";
import { RoutesBar } from "./RoutesBar";
import { RouteEditor } from "./RouteEditor";
import { TryOut } from "./TryOut";

type Content = Schemas["PolicyContent"];
type Kept = Schemas["KeptRoutes"];

const STATES: Record<string, string> = {
  NOW: "in force",
  LATER: "to come",
  PAST: "over",
  PROPOSED: "waits for a second person",
};

/** The routes of approval: which there are, from when, and which one a batch would take. */
export function RoutesPage() {
  const routes = useQuery({ queryKey: ["routes"], queryFn: () => call(api.GET("/api/routes")) });
  const people = useQuery({ queryKey: ["names"], queryFn: () => call(api.GET("/api/people/names")) });
  const accounts = useQuery({
    queryKey: ["accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
  });
  return (
    <Loaded query={routes}>
      {(view) => (
        <Loaded query={people}>
          {(who) => (
            <Loaded query={accounts}>{(from) => <Page view={view} people={who} accounts={from} />}</Loaded>
          )}
        </Loaded>
      )}
    </Loaded>
  );
}

function Page({
  view,
  people,
  accounts,
}: {
  view: Schemas["RoutesView"];
  people: Schemas["ColleagueView"][];
  accounts: Schemas["BankAccountView"][];
}) {
  const session = useSession();
  const [values, change] = useAddress();
  const shown: Kept | undefined =
    view.kept.find((one) => String(one.id) === values.set) ??
    view.kept.find((one) => one.state === "NOW") ??
    view.kept[0];
  const [draft, setDraft, forget] = useKept<Content | undefined>("routes", undefined);
  const [keeping, setKeeping] = useState(false);
  const [warnings, setWarnings] = useState<string[]>();
  const [confirming, setConfirming] = useState(false);
  const controller = session.roles.includes("CONTROLLER");
  const content = draft ?? shown?.content ?? FIRST;
  const checking = useDeed(() => call(api.POST("/api/routes/check", { body: content })), {
    done: (answer) => setWarnings(answer.warnings),
  });
  const check = checking.run;
  return (
    <Station
      title="Routes of approval"
      sentence={
        <>
          The routes{" "}
          {shown ? (
            <ChoiceWord
              name="Set of routes"
              text={`in force from ${longDate(shown.from)}`}
              value={String(shown.id)}
              choices={view.kept.map((one) => ({
                value: String(one.id),
                text: `from ${longDate(one.from)}`,
                detail: `${STATES[one.state]}, ${one.madeBy}`,
              }))}
              onChange={(set) => {
                forget();
                change({ set });
              }}
            />
          ) : (
            "that every batch takes"
          )}
          {draft ? <b>, being changed</b> : shown && `, ${STATES[shown.state]}`}. A batch takes the strictest
          that anything about it asks for.
        </>
      }
      answer={
        <>
          <Figure value={content.routes.length}>{content.routes.length === 1 ? "route" : "routes"}</Figure>
          {shown && !draft && (
            <span>
              kept by {shown.madeBy}, {clock(shown.madeAt)}
              {shown.confirmedBy && `, confirmed by ${shown.confirmedBy}`}: “{shown.note}”
            </span>
          )}
          {!shown && <span>Nothing was kept yet: one approver is asked for every batch.</span>}
          {draft && <span className="text-brass">not kept yet; batches under way are never touched</span>}
        </>
      }
      list={
        <div className="min-h-0 flex-1 overflow-auto px-5 py-3" tabIndex={0} data-list>
          <RouteEditor
            content={content}
            editable={controller && draft !== undefined}
            marks={view.marks}
            people={people}
            accounts={accounts}
            onChange={(next) => {
              setWarnings(undefined);
              setDraft(next);
            }}
          />
        </div>
      }
      bar={
        <RoutesBar
          draft={draft !== undefined}
          mayKeep={controller}
          mayConfirm={shown?.mayConfirm ?? false}
          onCheck={() => void check().then((fine) => fine && toast("Checked."))}
          onKeep={() => void check().then((fine) => fine && setKeeping(true))}
          onConfirm={() => setConfirming(true)}
          onChange={() => setDraft(content)}
          onLeave={() => {
            forget();
            setWarnings(undefined);
          }}
        />
      }
      slip={
        <>
          {warnings && <Warnings of={warnings} />}
          {controller ? (
            <TryOut content={content} marks={view.marks} accounts={accounts} />
          ) : (
            <p className="text-faint">Controllers can try out here which route a batch would take.</p>
          )}
        </>
      }
      strip={
        <>
          {shown && <ConfirmRoutes of={shown} open={confirming} onClose={() => setConfirming(false)} />}
          <KeepRoutes
            content={content}
            earliest={view.earliest}
            warnings={warnings ?? []}
            open={keeping}
            onClose={() => setKeeping(false)}
            onKept={() => {
              forget();
              setWarnings(undefined);
              change({ set: undefined });
            }}
          />
        </>
      }
    />
  );
}

/** What no set of people could complete, or that every route can be. */
function Warnings({ of }: { of: string[] }) {
  return (
    <section aria-label="Warnings" className="mb-4">
      {of.length === 0 ? (
        <p className="text-greentext font-semibold">Every route can be completed by different people.</p>
      ) : (
        of.map((words) => (
          <p key={words} className="callout text-brass mb-2">
            {words}
          </p>
        ))
      )}
    </section>
  );
}
