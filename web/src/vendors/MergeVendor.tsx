import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useWatch } from "react-hook-form";
import { useNavigate } from "react-router";
import { api, call } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import type { Vendor } from "./VendorPage";

interface Of {
  vendor: Vendor;
  onClose: () => void;
}

/** This vendor and another always were one: its documents and payments become that one's. */
export function MergeVendor({ open, ...of }: Of & { open: boolean }) {
  return (
    <Dialog open={open} onClose={of.onClose} title={`${of.vendor.name} is the same as another`}>
      <Merge {...of} />
    </Dialog>
  );
}

const lookFor = (text: string) => ({
  queryKey: ["vendors", text],
  queryFn: () => call(api.GET("/api/vendors", { params: { query: { text } } })),
});

interface Found {
  id: number;
  number: string;
  name: string;
}

const meant = (others: Found[], text: string) =>
  others.find((one) =>
    [one.number, one.name].some((said) => said.toLowerCase() === text.trim().toLowerCase()),
  );

function Merge({ vendor, onClose }: Of) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const form = useKeptForm(
    `merge ${vendor.id}`,
    { kept: "", why: "" },
    async ({ kept, why }) => {
      const id = meant(await queries.ensureQueryData(lookFor(kept)), kept)?.id ?? 0;
      await call(
        api.POST("/api/vendors/{id}/merge", { params: { path: { id: vendor.id } }, body: { kept: id, why } }),
      );
      return id;
    },
    {
      done: async (id) => {
        onClose();
        await queries.invalidateQueries();
        await navigate(`/vendors/${id}`);
      },
    },
  );
  const text = useWatch({ control: form.control, name: "kept" });
  const found = useQuery(lookFor(text));
  const others = found.data?.filter((one) => one.id !== vendor.id) ?? [];
  const kept = meant(others, text);
  return (
    <Form
      form={form}
      label="Merge"
      deed={kept ? `Merge into ${kept.name}` : "Merge"}
      look="grave"
      onClose={onClose}
      className="gap-3"
    >
      <Entry
        name="kept"
        label="The vendor that stays, by number or name"
        list="vendors-that-stay"
        autoFocus
      />
      <datalist id="vendors-that-stay">
        {others.map((one) => (
          <option key={one.id} value={one.number}>
            {one.name}
          </option>
        ))}
      </datalist>
      <p>
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
      <Entry name="why" label="How you know that they are one" rows={2} maxLength={500} />
    </Form>
  );
}
