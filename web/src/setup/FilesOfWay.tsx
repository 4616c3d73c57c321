import { useQuery } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { ChoiceEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import { useAgain, type Account } from "./BankAccountPage";

type Setting = Schemas["FilesSetting"];
type Typed = Schemas["FilesTyped"];

/** What the bank agreed on for the files of one way to pay. */
export function FilesOfWay({ account, way, name }: { account: Account; way: number; name: string }) {
  const [asking, setAsking] = useState(false);
  const setting = useQuery({
    queryKey: ["files-of-way", way],
    queryFn: () =>
      call(
        api.GET("/api/bank-accounts/{id}/ways/{way}/files", { params: { path: { id: account.id, way } } }),
      ),
  });
  const files = setting.data;
  if (!files) return null;
  return (
    <div>
      {files.known ? (
        <p className="text-faint">
          {files.ach
            ? `ACH files of ${files.ach.entryClass} entries for ${files.ach.companyName}, ${files.ach.balanced ? "balanced" : "not balanced"}`
            : `Files of credit transfers for ${files.transfers?.name}`}
          ; the bank takes them until {files.cutOff}, {files.ahead} banking{" "}
          {files.ahead === 1 ? "day" : "days"} ahead. The next reference is{" "}
          <b className="text-ink text-body font-mono">
            {files.prefix}
            {files.nextReference}
          </b>
          .{limits(files)}
        </p>
      ) : (
        <p className="text-brass">
          What the bank agreed on is not known yet: until then no file can be made of its payments.
        </p>
      )}
      {account.maySet && !account.closedOn && (
        <Button look="bare" onClick={() => setAsking(true)}>
          {files.known ? "Change what was agreed…" : "Say what the bank agreed on…"}
        </Button>
      )}
      <Dialog open={asking} onClose={() => setAsking(false)} title={`Files of ${name}`} wide>
        <Agreed
          key={files.version}
          account={account}
          way={way}
          files={files}
          onClose={() => setAsking(false)}
        />
      </Dialog>
    </div>
  );
}

function limits(files: Setting): string {
  const each = [
    files.perPayment && `${files.perPayment} a payment`,
    files.perFile && `${files.perFile} a file, ${files.splits ? "several where it is more" : "no more"}`,
    files.perDay && `${files.perDay} a day`,
  ].filter(Boolean);
  return each.length > 0 ? ` It takes ${each.join("; ")}.` : "";
}

const TWO = "grid grid-cols-2 gap-x-4 gap-y-3 max-[640px]:grid-cols-1";
const YES_NO = (yes: string, no: string) => [
  { value: "yes", text: yes },
  { value: "", text: no },
];

function Agreed({
  account,
  way,
  files,
  onClose,
}: {
  account: Account;
  way: number;
  files: Setting;
  onClose: () => void;
}) {
  const again = useAgain();
  const { ach, transfers } = files;
  const form = useKeptForm(
    `files of way ${way}`,
    {
      destination: ach?.destination ?? "",
      destinationName: ach?.destinationName ?? "",
      origin: ach?.origin ?? "",
      originName: ach?.originName ?? "",
      companyName: ach?.companyName ?? "",
      companyId: ach?.companyId ?? "",
      description: ach?.description ?? "",
      odfi: ach?.odfi ?? "",
      balanced: ach?.balanced ? "yes" : "",
      entryClass: ach?.entryClass ?? "CCD",
      announcedDays: ach?.announcedDays ? String(ach.announcedDays) : "",
      message: transfers?.message ?? "PAIN_001_09",
      name: transfers?.name ?? "",
      id: transfers?.id ?? "",
      charges: transfers?.charges ?? "SLEV",
      structured: transfers?.structured ? "yes" : "",
      iban: "",
      bic: files.bic,
      perPayment: files.perPayment,
      perFile: files.perFile,
      perDay: files.perDay,
      splits: files.splits ? "yes" : "",
      cutOff: files.cutOff,
      ahead: String(files.ahead),
      prefix: files.prefix,
      nextReference: String(files.nextReference),
    },
    (typed) => {
      const body: Typed = {
        ach: ach && {
          destination: typed.destination,
          destinationName: typed.destinationName,
          origin: typed.origin,
          originName: typed.originName,
          companyName: typed.companyName,
          companyId: typed.companyId,
          description: typed.description,
          odfi: typed.odfi,
          balanced: typed.balanced === "yes",
          entryClass: typed.entryClass as NonNullable<Typed["ach"]>["entryClass"],
          announcedDays: typed.announcedDays.trim() === "" ? undefined : Number(typed.announcedDays) || 0,
        },
        transfers: transfers && {
          message: typed.message as NonNullable<Typed["transfers"]>["message"],
          name: typed.name,
          id: typed.id,
          charges: typed.charges as NonNullable<Typed["transfers"]>["charges"],
          structured: typed.structured === "yes",
        },
        // what is there is shown by its end only, so an empty one leaves it
        iban: typed.iban.trim() === "" ? undefined : typed.iban,
        bic: typed.bic,
        perPayment: typed.perPayment,
        perFile: typed.perFile,
        perDay: typed.perDay,
        splits: typed.splits === "yes",
        cutOff: typed.cutOff,
        ahead: Number(typed.ahead) || 0,
        prefix: typed.prefix,
        nextReference: Number(typed.nextReference) || 0,
        version: files.version,
      };
      return call(
        api.POST("/api/bank-accounts/{id}/ways/{way}/files", {
          params: { path: { id: account.id, way } },
          body,
        }),
      );
    },
    {
      secret: ["iban"],
      done: async () => {
        await again();
        onClose();
      },
      said: () => "Files are made so from now on.",
    },
  );
  return (
    <Form form={form} label="What the bank agreed on" deed="Keep it" onClose={onClose}>
      {ach ? <OfAch /> : <OfTransfers ownIban={files.ownIban} />}
      <Group legend="How much, and until when">
        <Entry
          name="perPayment"
          label="Largest payment; empty for any"
          inputMode="decimal"
          look="text-right"
        />
        <Entry name="perFile" label="Most in one file; empty for any" inputMode="decimal" look="text-right" />
        <Entry name="perDay" label="Most for one day; empty for any" inputMode="decimal" look="text-right" />
        <ChoiceEntry
          name="splits"
          label="What is too much for one file"
          choices={YES_NO("goes into several", "is refused")}
        />
        <Entry name="cutOff" label="The bank takes files of a day until" look="w-24" maxLength={5} />
        <Entry
          name="ahead"
          label="Banking days it needs before payees have the money"
          inputMode="numeric"
          look="w-16"
          maxLength={2}
        />
      </Group>
      <Group legend="References of its payments">
        <Entry name="prefix" label="Letters before the number" look="w-24 font-mono" maxLength={5} />
        <Entry
          name="nextReference"
          label="The next number"
          inputMode="numeric"
          look="w-32 font-mono"
          maxLength={10}
        />
      </Group>
      <Letters files={files} />
    </Form>
  );
}

function Group({ legend, children }: { legend: string; children: ReactNode }) {
  return (
    <fieldset>
      <legend className="mb-2 font-semibold">{legend}</legend>
      <div className={TWO}>{children}</div>
    </fieldset>
  );
}

function OfAch() {
  return (
    <Group legend="As the bank wrote it to us">
      <Entry
        name="destination"
        label="Routing number of the bank that takes the file"
        look="font-mono"
        maxLength={9}
      />
      <Entry name="destinationName" label="Its name" maxLength={23} />
      <Entry
        name="origin"
        label="What it knows the company by, ten letters and digits"
        look="font-mono"
        maxLength={10}
      />
      <Entry name="originName" label="The company’s name in the file" maxLength={23} />
      <Entry name="companyName" label="The company, as payees see it" maxLength={16} />
      <Entry name="companyId" label="Company identification of the batches" look="font-mono" maxLength={10} />
      <Entry name="description" label="What the payments are" maxLength={10} />
      <Entry name="odfi" label="Routing number the entries are sent under" look="font-mono" maxLength={9} />
      <ChoiceEntry
        name="entryClass"
        label="Entries are"
        choices={[
          { value: "CCD", text: "CCD: to companies, one addendum" },
          { value: "PPD", text: "PPD: to persons, one addendum" },
          { value: "CTX", text: "CTX: to companies, every document" },
        ]}
      />
      <ChoiceEntry
        name="balanced"
        label="Each batch debits our account itself"
        choices={YES_NO("yes: balanced", "no: the bank does that")}
      />
      <Entry
        name="announcedDays"
        label="Accounts are announced so many banking days before money goes there first; empty: not at all"
        inputMode="numeric"
        maxLength={2}
      />
    </Group>
  );
}

function OfTransfers({ ownIban }: { ownIban: string }) {
  return (
    <Group legend="As the bank wrote it to us">
      <ChoiceEntry
        name="message"
        label="Version of the standard it reads"
        choices={[
          { value: "PAIN_001_09", text: "pain.001.001.09" },
          { value: "PAIN_001_03", text: "pain.001.001.03" },
        ]}
      />
      <Entry name="name" label="The company’s name" maxLength={70} />
      <Entry
        name="id"
        label="The company’s number at the bank; empty for none"
        look="font-mono"
        maxLength={35}
      />
      <ChoiceEntry
        name="charges"
        label="Charges"
        choices={[
          { value: "SLEV", text: "as the service level says" },
          { value: "SHAR", text: "each side its own bank’s" },
          { value: "DEBT", text: "all ours" },
          { value: "CRED", text: "all the payee’s" },
        ]}
      />
      <ChoiceEntry
        name="structured"
        label="Paid documents are told"
        choices={YES_NO("one by one", "as one text")}
      />
      <Entry
        name="iban"
        label={
          ownIban
            ? `Another IBAN of our account; empty for ${ownIban}`
            : "IBAN of our account, where files name it so"
        }
        look="font-mono"
        maxLength={42}
      />
      <Entry name="bic" label="BIC of our bank, with an IBAN" look="font-mono" maxLength={11} />
    </Group>
  );
}

/** How signs are written that such files cannot carry. */
function Letters({ files }: { files: Setting }) {
  return (
    <details>
      <summary className="go min-h-6 cursor-pointer">Letters such files cannot carry</summary>
      <p className="text-faint text-note my-1">
        Accents are left out, other scripts are written as they sound, and these signs so:
      </p>
      <p className="font-mono text-body flex flex-wrap gap-x-5">
        {files.letters.map((one) => (
          <span key={one.sign}>
            {one.sign} → {one.written}
          </span>
        ))}
      </p>
    </details>
  );
}
