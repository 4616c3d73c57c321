import { useState } from "react";
import type { Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Station } from "../frame/Station";
import { useKept } from "../parts/useKept";
import { useRest } from "../parts/useRest";
import { ChoiceWord } from "../parts/Word";
import { Beside, Sample, useTried } from "./Compared";
import { Keeping, OutAndIn } from "./LayoutDeeds";
import { AsText, FieldByField, PartForm } from "./LayoutViews";
import { parsed, written, type LayoutText, type Place } from "./layoutText";

type Version = Schemas["BankLayoutVersion"];
type Account = Schemas["BankAccountView"];

export const nameOf = (one: Version) => `${one.name}, version ${one.version}`;

type View = "fields" | "text" | "sample" | "beside";

const VIEWS: { value: View; text: string; detail: string }[] = [
  { value: "fields", text: "field by field", detail: "" },
  { value: "text", text: "as text", detail: "JSON, out and in" },
  { value: "sample", text: "under a sample of the bank", detail: "where they differ" },
  { value: "beside", text: "beside another version", detail: "on the same events" },
];

/** One layout as it is changed, in one of its views. */
export function LayoutEditor({
  version,
  versions,
  given,
  account,
  sentence,
  onKept,
}: {
  version: Version;
  versions: Version[];
  given: string;
  account: Account;
  sentence: React.ReactNode;
  onKept: (id: number) => void;
}) {
  const { roles } = useSession();
  const [values, change] = useAddress();
  const [text, keep, forget] = useKept<string>(`bank layout ${version.id}`, given);
  const [at, setAt] = useState<Place>({ record: -1, field: -1 });
  const rested = useRest(text);
  const tried = useTried(account.id, rested);
  const layout = parsed(text);
  const view: View = layout ? ((values.view as View | undefined) ?? "fields") : "text";
  const changed = text !== given;
  const may = roles.includes("ADMINISTRATOR");
  const edit = (next: LayoutText) => keep(written(next));
  return (
    <Station
      title="Layouts of bank files"
      sentence={
        <>
          {sentence} It is shown{" "}
          <ChoiceWord
            name="Shown"
            text={VIEWS.find((one) => one.value === view)!.text}
            value={view}
            choices={VIEWS}
            onChange={(next) => change({ view: next })}
          />
          .
        </>
      }
      answer={
        <>
          <span>{version.usedBy ? `files of ${version.usedBy} are made in it` : "no account uses it"}</span>
          {tried.data?.fileName && (
            <span>
              the next file is called like <b className="font-mono">{tried.data.fileName}</b>
            </span>
          )}
          <OutAndIn
            name={layout?.name ?? version.name}
            text={text}
            may={may}
            onBrought={keep}
            onCopied={layout && (() => edit({ ...layout, name: `${layout.name} (copy)` }))}
          />
        </>
      }
      list={
        view === "text" || !layout ? (
          <AsText text={text} may={may} keep={keep} tried={tried} />
        ) : view === "sample" ? (
          <Sample text={rested} account={account.id} layout={layout} />
        ) : view === "beside" ? (
          <Beside version={version} versions={versions} account={account.id} mine={tried.data} />
        ) : (
          <FieldByField layout={layout} tried={tried} at={at} onAt={setAt} />
        )
      }
      bar={
        may ? (
          <Keeping
            account={account.id}
            text={text}
            changed={changed}
            tried={tried}
            onForget={forget}
            onKept={onKept}
          />
        ) : (
          <span className="text-faint text-note">An administrator changes layouts.</span>
        )
      }
      slip={
        view === "fields" && layout ? (
          <PartForm
            layout={layout}
            onChange={edit}
            readOnly={!may}
            at={at}
            onAt={setAt}
            account={account.id}
          />
        ) : undefined
      }
    />
  );
}
