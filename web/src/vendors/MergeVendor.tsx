import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, call } from "../api/client";
import { DeedDialog } from "../parts/DeedDialog";
import { Field } from "../parts/Field";
import type { Vendor } from "./VendorPage";

/** This vendor and another always were one: its documents and payments become that one's. */
export function MergeVendor({
  vendor,
  open,
  onClose,
}: {
  vendor: Vendor;
  open: boolean;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [text, setText] = useState("");
  const found = useQuery({
    queryKey: ["vendors", text],
    enabled: open,
    queryFn: () => call(api.GET("/api/vendors", { params: { query: { text } } })),
  });
  const wanted = text.trim().toLowerCase();
  const kept = found.data?.find(
    (one) =>
      one.id !== vendor.id && (one.number.toLowerCase() === wanted || one.name.toLowerCase() === wanted),
  );
  return (
    <DeedDialog
      open={open}
      onClose={onClose}
      title={`${vendor.name} is the same as another`}
      deed={kept ? `Merge into ${kept.name}` : "Merge"}
      grave
      reason="How you know that they are one"
      run={async (why) => {
        await call(
          api.POST("/api/vendors/{id}/merge", {
            params: { path: { id: vendor.id } },
            body: { kept: kept?.id ?? 0, why },
          }),
        );
        await queries.invalidateQueries();
        await navigate(`/vendors/${kept!.id}`);
      }}
    >
      <Field label="The vendor that stays, by number or name">
        <input
          autoFocus
          list="vendors-that-stay"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </Field>
      <datalist id="vendors-that-stay">
        {found.data
          ?.filter((one) => one.id !== vendor.id)
          .map((one) => (
            <option key={one.id} value={one.number}>
              {one.name}
            </option>
          ))}
      </datalist>
      <p className="mt-3">
        {kept ? (
          <>
            All documents and payments of {vendor.name} become those of <b>{kept.name}</b>, and this cannot be
            taken back. Addresses that open documents name come along and wait for a second person. What was
            printed says what it said.
          </>
        ) : (
          <span className="text-faint">Choose the one that stays.</span>
        )}
      </p>
    </DeedDialog>
  );
}
