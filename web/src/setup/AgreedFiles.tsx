import { api, call, type Schemas } from "../api/client";
import { ChoiceEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import { useAgain, type Account } from "./BankAccountPage";
import { Group, Letters, OfAch, OfTransfers, YES_NO } from "./FileFields";

type Typed = Schemas["FilesTyped"];

/** What the bank agreed on for the files of a way, as it is typed. */
export function AgreedFiles({
  account,
  way,
  files,
  onClose,
}: {
  account: Account;
  way: number;
  files: Schemas["FilesSetting"];
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
