import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { toast } from "sonner";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { clock, longDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { useDeed } from "../parts/useDeed";
import { useKept } from "../parts/useKept";
import { ChoiceWord } from "../parts/Word";
import { RouteEditor } from "./RouteEditor";
import { TryOut } from "./TryOut";
import { DayField } from "../parts/DayField";

type Content = Schemas["PolicyContent"];
type Kept = Schemas["KeptRoutes"];

const STATES: Record<string, string> = {
  NOW: "in force",
  LATER: "to come",
  PAST: "over",
  PROPOSED: "waits for a second person",
};

/** What a company starts with before any routes were kept. */
const FIRST: Content = {
  routes: [
    {
      name: "Everyday",
      accounts: [],
      totalOver: [],
      paymentOver: [],
      marks: [],
      steps: [
        {
          name: "Approval",
          role: "APPROVER",
          people: [],
          needed: 1,
          remindAfterHours: 24,
          escalateAfterHours: 0,
          secondLine: [],
        },
      ],
    },
  ],
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
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const shown: Kept | undefined =
    view.kept.find((one) => String(one.id) === values.set) ??
    view.kept.find((one) => one.state === "NOW") ??
    view.kept[0];
  const [draft, setDraft, forget] = useKept<Content | undefined>("routes", undefined);
  const [keeping, setKeeping] = useState(false);
  const [from, setFrom] = useState(view.earliest);
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
        controller ? (
          draft ? (
            <>
              <Button onClick={() => void check().then((fine) => fine && toast("Checked."))}>
                Check the routes
              </Button>
              <Button
                look="bare"
                onClick={() => {
                  forget();
                  setWarnings(undefined);
                }}
              >
                Leave it as it was
              </Button>
              <span className="ml-auto" />
              <Button look="deed" onClick={() => void check().then((fine) => fine && setKeeping(true))}>
                Keep these routes…
              </Button>
            </>
          ) : (
            <>
              <span className="text-faint text-note">
                A change is a new set, confirmed by a second person and in force from a later day; what was
                sent before keeps its route.
              </span>
              {shown?.mayConfirm && (
                <Button onClick={() => setConfirming(true)}>Confirm these routes…</Button>
              )}
              <Button look="deed" className="ml-auto" onClick={() => setDraft(content)}>
                Change the routes
              </Button>
            </>
          )
        ) : (
          <span className="text-faint text-note">A controller keeps the routes.</span>
        )
      }
      slip={
        <>
          {warnings && (
            <section aria-label="Warnings" className="mb-4">
              {warnings.length === 0 ? (
                <p className="text-greentext font-semibold">
                  Every route can be completed by different people.
                </p>
              ) : (
                warnings.map((words) => (
                  <p key={words} className="callout text-brass mb-2">
                    {words}
                  </p>
                ))
              )}
            </section>
          )}
          {controller ? (
            <TryOut content={content} marks={view.marks} accounts={accounts} />
          ) : (
            <p className="text-faint">Controllers can try out here which route a batch would take.</p>
          )}
        </>
      }
      strip={
        <>
          <DeedDialog
            open={confirming}
            onClose={() => setConfirming(false)}
            title="Confirm these routes"
            deed="Confirm the routes"
            run={async () => {
              await call(api.POST("/api/routes/{id}/confirm", { params: { path: { id: shown!.id } } }));
              await queries.invalidateQueries();
              toast(`Confirmed: in force from ${longDate(shown!.from)}.`);
            }}
          >
            <p>
              {shown?.madeBy} made them: “{shown?.note}”. Batches sent from {shown && longDate(shown.from)} on
              take them.
            </p>
          </DeedDialog>
          <DeedDialog
            open={keeping}
            onClose={() => setKeeping(false)}
            title="Keep these routes"
            deed="Keep the routes"
            reason="Why they change"
            run={async (note) => {
              await call(api.POST("/api/routes", { body: { from, note, content } }));
              forget();
              setWarnings(undefined);
              change({ set: undefined });
              await queries.invalidateQueries();
              toast(
                "Kept. They wait for a second controller; until then the routes before them stay in force.",
              );
            }}
          >
            <DayField
              label="In force from, tomorrow at the earliest"
              value={from}
              onDay={(day) => setFrom(day ?? "")}
            />
            <p className="text-faint mt-2">
              A second controller confirms them before that day begins; you do not confirm your own.
            </p>
            {warnings?.map((words) => (
              <p key={words} className="callout text-brass mt-2">
                {words}
              </p>
            ))}
          </DeedDialog>
        </>
      }
    />
  );
}
