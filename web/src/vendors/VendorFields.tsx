import { useQuery } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { ChecksEntry, ChoiceEntry, Entry } from "../parts/Form";
import type { Typed } from "../parts/useKeptForm";

type Wanted = Schemas["VendorWanted"];

/** What can be chosen of a vendor, and the number the next one gets. */
export function useVendorChoices() {
  return useQuery({
    queryKey: ["vendor-choices"],
    queryFn: () => call(api.GET("/api/vendors/choices")),
  });
}

/** What was typed, as the server reads it; a priority that is none is refused at its field. */
export function asWanted(typed: Typed, taxNumber: string | undefined): Wanted {
  return {
    name: typed.name ?? "",
    group: typed.group ?? "",
    priority: /^\d$/.test(typed.priority?.trim() ?? "") ? Number(typed.priority) : 0,
    method: typed.method as Wanted["method"],
    alsoBy: (typed.alsoBy ?? "").split(" ").filter(Boolean) as Wanted["alsoBy"],
    terms: typed.terms ?? "",
    paperwork: {
      email: typed.email ?? "",
      advice: typed.advice as Wanted["paperwork"]["advice"],
      checks: typed.checks as Wanted["paperwork"]["checks"],
      dates: (typed.dates || undefined) as Wanted["paperwork"]["dates"],
    },
    reportable: typed.reportable as Wanted["reportable"],
    taxNumber,
  };
}

/** What one person keeps of a vendor. */
export function VendorFields({ autoFocus = false }: { autoFocus?: boolean }) {
  const choices = useVendorChoices();
  const texts = (all: { value: string; words: string }[] | undefined) =>
    (all ?? []).map((one) => ({ value: one.value, text: one.words }));
  return (
    <div className="grid grid-cols-2 gap-3 max-[640px]:grid-cols-1">
      <Entry name="name" label="Name" className="col-span-2" autoFocus={autoFocus} />
      <Entry name="terms" label="Terms" placeholder="2% 10, net 30" />
      <ChoiceEntry name="method" label="Paid by" choices={texts(choices.data?.methods)} />
      <ChecksEntry
        name="alsoBy"
        label="May be paid as well, where somebody says so, by"
        choices={texts(choices.data?.methods)}
      />
      <Entry name="group" label="Group" list="vendor-groups" />
      <datalist id="vendor-groups">
        {choices.data?.groups.map((group) => (
          <option key={group} value={group} />
        ))}
      </datalist>
      <Entry name="priority" label="Priority: 1 is paid first, 9 last" inputMode="numeric" look="w-16" />
      <ChoiceEntry name="advice" label="Remittance advice" choices={texts(choices.data?.advices)} />
      <Entry name="email" label="Mail address for advice" inputMode="email" />
      <ChoiceEntry name="checks" label="Checks go" choices={texts(choices.data?.deliveries)} />
      <ChoiceEntry
        name="dates"
        label="Dates on its papers"
        choices={[{ value: "", text: "as the layout has them" }, ...texts(choices.data?.dates)]}
      />
      <ChoiceEntry
        name="reportable"
        label="Reported at the end of the year as"
        choices={texts(choices.data?.reportable)}
      />
      <Entry name="taxNumber" label="Tax number; kept sealed" look="font-mono" />
    </div>
  );
}
