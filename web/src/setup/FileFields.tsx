import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { ChoiceEntry, Entry } from "../parts/Form";

const TWO = "grid grid-cols-2 gap-x-4 gap-y-3 max-[640px]:grid-cols-1";
/** The choices of a question. */
export const YES_NO = (yes: string, no: string) => [
  { value: "yes", text: yes },
  { value: "", text: no },
];

/** Fields that belong together. */
export function Group({ legend, children }: { legend: string; children: ReactNode }) {
  return (
    <fieldset>
      <legend className="mb-2 font-semibold">{legend}</legend>
      <div className={TWO}>{children}</div>
    </fieldset>
  );
}

/** What a bank says of ACH files. */
export function OfAch() {
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

/** What a bank says of files of credit transfers. */
export function OfTransfers({ ownIban }: { ownIban: string }) {
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
export function Letters({ files }: { files: Schemas["FilesSetting"] }) {
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
