import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, call } from "../api/client";
import { Entry, Form } from "../parts/Form";
import { Loaded } from "../parts/Loaded";
import { useKeptForm } from "../parts/useKeptForm";

/** After how many years each state takes what payees did not claim. */
export function DormancyForm({ onClose }: { onClose: () => void }) {
  const kept = useQuery({
    queryKey: ["dormancy"],
    queryFn: () => call(api.GET("/api/stale/dormancy")),
  });
  return <Loaded query={kept}>{(data) => <Years text={data.text} onClose={onClose} />}</Loaded>;
}

function Years({ text, onClose }: { text: string; onClose: () => void }) {
  const queries = useQueryClient();
  const form = useKeptForm(
    "dormancy",
    { text },
    (typed) => call(api.POST("/api/stale/dormancy", { body: typed })),
    {
      done: async () => {
        await queries.invalidateQueries();
        onClose();
      },
      said: () => "The years are kept.",
    },
  );
  return (
    <Form form={form} label="Years until unclaimed" deed="Keep the years" onClose={onClose}>
      <Entry
        name="text"
        label="A line for each state: how its postal codes begin, its name, the years"
        rows={8}
        look="font-mono"
        maxLength={20000}
        placeholder="410 Skerrow 3"
      />
      <p className="text-faint text-note">
        An asterisk stands for all other addresses. The longest beginning that fits is the one that counts.
      </p>
    </Form>
  );
}
