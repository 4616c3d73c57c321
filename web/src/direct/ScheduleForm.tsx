import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useWatch } from "react-hook-form";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { ChoiceEntry, DayEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import { VendorNames } from "../vendors/VendorNames";

/** Begins something that is paid again and again, or changes it. */
export function ScheduleForm({
  given,
  rhythms,
  onClose,
}: {
  given?: Schemas["ScheduleView"];
  rhythms: Schemas["RhythmChoice"][];
  onClose: () => void;
}) {
  const { today } = useSession();
  const queries = useQueryClient();
  const ways = useQuery({ queryKey: ["direct-ways"], queryFn: () => call(api.GET("/api/direct/ways")) });
  const form = useKeptForm(
    given ? `schedule ${given.id} ${given.version}` : "new schedule",
    {
      name: given?.name ?? "",
      vendor: given?.vendorName ?? "",
      way: given ? String(given.way) : "",
      said: given?.said ?? "",
      reference: given?.reference ?? "",
      amount: given?.amount.text ?? "",
      rhythm: given?.rhythm ?? "MONTHLY",
      first: given?.first ?? today,
      until: given?.until ?? "",
    },
    async (typed) => {
      const way = ways.data?.find((one) => String(one.way) === typed.way) ?? ways.data?.[0];
      const vendor = given?.vendor ?? (await vendorOf(typed.vendor));
      const body = {
        name: typed.name,
        account: way?.account ?? 0,
        way: way?.way ?? 0,
        vendor,
        reference: typed.reference,
        said: typed.said,
        amount: typed.amount,
        rhythm: typed.rhythm as Schemas["ScheduleWanted"]["rhythm"],
        first: typed.first,
        until: typed.until || undefined,
        version: given?.version ?? 0,
      };
      return given
        ? call(api.POST("/api/schedules/{id}", { params: { path: { id: given.id } }, body }))
        : call(api.POST("/api/schedules", { body }));
    },
    {
      done: async () => {
        await queries.invalidateQueries();
        onClose();
      },
      said: (_, typed) =>
        given ? `“${typed.name}” is kept as you typed it.` : `“${typed.name}” is proposed from now on.`,
    },
  );
  const vendor = String(useWatch({ control: form.control, name: "vendor" }) ?? "");
  return (
    <Form
      form={form}
      label="Schedule"
      deed={given ? "Keep the schedule" : "Begin the schedule"}
      onClose={onClose}
      className="gap-3"
    >
      <div className="grid grid-cols-2 gap-3 max-[640px]:grid-cols-1">
        <Entry name="name" label="What it is called" autoFocus maxLength={120} />
        {given ? (
          <p className="self-end pb-2">
            Paid to <b>{given.vendorName}</b>
          </p>
        ) : (
          <>
            <Entry name="vendor" label="Paid to" list="schedule-payees" />
            <VendorNames id="schedule-payees" text={vendor} />
          </>
        )}
        <ChoiceEntry
          name="way"
          label="Paid by"
          choices={(ways.data ?? []).map((one) => ({
            value: String(one.way),
            text: `${one.name}, ${one.accountName}, ${one.currency}`,
          }))}
        />
        <Entry name="amount" label="Amount each time" inputMode="decimal" />
        <Entry name="said" label="What it is for: accounts, such as 5600/PIER-2 700.00; 5400 525.00" />
        <Entry
          name="reference"
          label="The payee reads; {month} is its month, {year} its year"
          look="font-mono"
        />
        <ChoiceEntry
          name="rhythm"
          label="How often"
          choices={rhythms.map((one) => ({ value: one.value, text: one.words }))}
        />
        <span />
        <DayEntry name="first" label="First day" />
        <DayEntry name="until" label="Until; empty: no end" />
      </div>
      <p className="text-faint text-note">
        It is proposed each time its day comes. Nothing is paid by itself, and each payment is approved.
      </p>
    </Form>
  );
}

/** The one vendor that is called so; 0 where there is none, which the server refuses with its sentence. */
async function vendorOf(text: string): Promise<number> {
  const found = await call(api.GET("/api/vendors", { params: { query: { text: text.trim() } } }));
  const wanted = text.trim().toLowerCase();
  const named = found.filter((one) => [one.name, one.number].some((word) => word.toLowerCase() === wanted));
  return named.length === 1 ? named[0]!.id : 0;
}
