import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Field } from "../parts/Field";
import type { Import } from "./kinds";

/** Senders nobody knows: whose documents are these? Asked once; from then on they are known. */
export function Senders({
  job,
  onKnown,
}: {
  job: Import;
  onKnown: (known: { sender: number; vendor: number }) => void;
}) {
  const senders = useQuery({
    queryKey: ["import-senders", job.id, job.state, job.refused],
    queryFn: () => call(api.GET("/api/imports/{id}/senders", { params: { path: { id: job.id } } })),
  });
  return (
    <ul>
      {senders.data?.map((one) => (
        <Sender key={one.sender} sender={one} onKnown={(vendor) => onKnown({ sender: one.sender, vendor })} />
      ))}
    </ul>
  );
}

function Sender({
  sender,
  onKnown,
}: {
  sender: Schemas["UnknownSenderView"];
  onKnown: (vendor: number) => void;
}) {
  const [text, setText] = useState(sender.name);
  const found = useQuery({
    queryKey: ["vendors", text],
    queryFn: () => call(api.GET("/api/vendors", { params: { query: { text } } })),
  });
  return (
    <li className="callout mb-2">
      <Field
        label={`Whose ${sender.documents === 1 ? "document is this" : `${sender.documents} documents are these`}: “${sender.name}”?`}
        small
      >
        <input
          value={text}
          placeholder="vendor by number or name"
          onChange={(event) => setText(event.target.value)}
        />
      </Field>
      <div className="mt-1 flex flex-wrap gap-2">
        {found.data?.slice(0, 4).map((vendor) => (
          <Button key={vendor.id} onClick={() => onKnown(vendor.id)}>
            {vendor.number} {vendor.name}
          </Button>
        ))}
        {found.data?.length === 0 && (
          <span className="text-faint text-note">No vendor fits. Bring the vendor in first.</span>
        )}
      </div>
    </li>
  );
}
