import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { ChoiceEntry, Entry, Form } from "../parts/Form";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";

type Kinds = Schemas["IdentifiersView"]["kinds"];
type Kind = Schemas["IdentifierWanted"]["kind"];

/** By what documents that come as files are known to be this vendor's. */
export function Identifiers({ vendor }: { vendor: number }) {
  const queries = useQueryClient();
  const [adding, setAdding] = useState(false);
  const path = { params: { path: { id: vendor } } };
  const queryKey = ["vendor-identifiers", vendor];
  const all = useQuery({
    queryKey,
    queryFn: () => call(api.GET("/api/vendors/{id}/identifiers", path)),
  });
  const again = () => queries.invalidateQueries({ queryKey });
  const forgetting = useDeed(
    (one: { scheme: string; value: string }) =>
      call(api.POST("/api/vendors/{id}/identifiers/forget", { ...path, body: one })),
    { line: `identifiers ${vendor}`, done: again, failed: again },
  );
  if (!all.data) return null;
  const { kept, kinds, mayChange } = all.data;
  return (
    <section>
      <h2 className="text-faint mb-1 text-note font-semibold">Known in files by</h2>
      {kept.length === 0 && <p className="text-faint">Its number and its name.</p>}
      <ul>
        {kept.map((one) => (
          <li key={one.scheme + one.value} className="flex items-baseline gap-2">
            <span className="text-faint text-note">{one.words}</span>
            <span className="min-w-0 truncate font-mono text-note">{one.value}</span>
            {mayChange && one.value && (
              <Button
                look="bare"
                className="ml-auto min-h-6 py-0"
                aria-label={`Forget ${one.words} ${one.value}`}
                onClick={() => void forgetting.run({ scheme: one.scheme, value: one.value })}
              >
                forget
              </Button>
            )}
          </li>
        ))}
      </ul>
      {mayChange && (
        <Button look="bare" className="mt-1" onClick={() => setAdding(true)}>
          Add what it calls itself…
        </Button>
      )}
      <Dialog
        open={adding}
        onClose={() => setAdding(false)}
        title="What the vendor calls itself in its files"
      >
        <Add vendor={vendor} kinds={kinds} onAdded={again} onClose={() => setAdding(false)} />
      </Dialog>
    </section>
  );
}

function Add({
  vendor,
  kinds,
  onAdded,
  onClose,
}: {
  vendor: number;
  kinds: Kinds;
  onAdded: () => Promise<void>;
  onClose: () => void;
}) {
  const form = useKeptForm(
    `identifier ${vendor}`,
    { kind: "ENDPOINT", register: "", value: "" },
    (typed) =>
      call(
        api.POST("/api/vendors/{id}/identifiers", {
          params: { path: { id: vendor } },
          body: { ...typed, kind: typed.kind as Kind },
        }),
      ),
    {
      done: async () => {
        await onAdded();
        onClose();
      },
      said: () => "Files with this are this vendor's from now on.",
    },
  );
  return (
    <Form form={form} label="Identifier" deed="Add it" onClose={onClose}>
      <ChoiceEntry
        name="kind"
        label="What it is"
        choices={kinds.map((kind) => ({ value: kind.value, text: kind.words }))}
      />
      <Entry name="value" label="As it stands in the file" look="font-mono" autoFocus />
      <Entry
        name="register"
        label="Code of the register, such as 0192; empty for none"
        look="w-40 font-mono"
      />
    </Form>
  );
}
