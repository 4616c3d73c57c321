import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useWatch } from "react-hook-form";
import { api, call } from "../api/client";
import { useSession } from "../frame/session";
import { ChoiceEntry, DayEntry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";

const NOBODY = { value: "", text: "choose somebody" };

/** Who acts for whom, and in which days; an administrator names it for others. */
export function NameDeputy({ onClose }: { onClose: () => void }) {
  const session = useSession();
  const queries = useQueryClient();
  const people = useQuery({ queryKey: ["names"], queryFn: () => call(api.GET("/api/people/names")) });
  const approvers = (people.data ?? [])
    .filter((one) => one.roles.some((role) => role === "APPROVER" || role === "CONTROLLER"))
    .map((one) => ({ value: String(one.id), text: one.name }));
  const own = approvers.filter((one) => one.value === String(session.personId));
  const form = useKeptForm(
    "deputy",
    { person: own[0]?.value ?? "", deputy: "", from: session.today, until: session.today },
    ({ person, deputy, from, until }) =>
      call(
        api.POST("/api/deputies", {
          body: { person: Number(person), deputy: Number(deputy), from, until },
        }),
      ),
    {
      done: async () => {
        await queries.invalidateQueries();
        onClose();
      },
      said: () => "Named. They see at Approval what waits.",
    },
  );
  const person = useWatch({ control: form.control, name: "person" });
  return (
    <Form form={form} label="Naming a deputy" deed="Name the deputy" onClose={onClose}>
      <div className="grid grid-cols-2 gap-3">
        <ChoiceEntry
          name="person"
          label="For"
          choices={session.roles.includes("ADMINISTRATOR") ? [NOBODY, ...approvers] : own}
        />
        <ChoiceEntry
          name="deputy"
          label="Deputy"
          choices={[NOBODY, ...approvers.filter((one) => one.value !== person)]}
        />
        <DayEntry name="from" label="From" />
        <DayEntry name="until" label="Until and with" />
      </div>
    </Form>
  );
}
