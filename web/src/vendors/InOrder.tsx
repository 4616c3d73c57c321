import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call } from "../api/client";
import { Button } from "../parts/Button";
import { Field } from "../parts/Field";
import { useEntryForm } from "../parts/Form";
import { useRest } from "../parts/useRest";

const NOTHING = { country: "US", street: "", town: "", region: "", postalCode: "", named: false };

/**
 * Puts an address together in the order in which the post of its country reads it, and gives its lines to the form they are
 * typed into.
 *
 * @param lines the field of the form that holds them
 */
export function InOrder({ lines }: { lines: string }) {
  const form = useEntryForm();
  const [parts, setParts] = useState(NOTHING);
  const [open, setOpen] = useState(false);
  const asked = useRest(parts);
  const typed = Boolean(asked.street || asked.town || asked.region || asked.postalCode);
  const countries = useQuery({
    queryKey: ["countries"],
    queryFn: () => call(api.GET("/api/addresses/countries")),
    enabled: open,
    staleTime: Infinity,
  });
  const inOrder = useQuery({
    queryKey: ["address-lines", asked],
    queryFn: () => call(api.GET("/api/addresses/lines", { params: { query: asked } })),
    enabled: open && typed,
    placeholderData: keepPreviousData,
  });
  const part = (name: "street" | "town" | "region" | "postalCode", label: string) => (
    <Field label={label} small>
      <input
        value={parts[name]}
        autoComplete="off"
        onChange={(event) => setParts({ ...parts, [name]: event.target.value })}
      />
    </Field>
  );
  const ready = inOrder.data && typed && !inOrder.isPlaceholderData && asked === parts;
  const take = () => {
    if (!ready) return;
    form.setValue(lines, inOrder.data.lines.join("\n"));
    form.setValue("postalCode", parts.postalCode.trim());
    form.keep();
  };
  return (
    <details
      className="text-faint"
      onToggle={(event) => setOpen(event.currentTarget.open)}
      onKeyDown={(event) => {
        // Enter takes the lines here; what they are typed for is not done by it
        if (event.key === "Enter" && event.target instanceof HTMLInputElement) {
          event.preventDefault();
          take();
        }
      }}
    >
      <summary>Put it together in the order of its country</summary>
      <div className="mt-2 grid grid-cols-2 gap-2">
        <Field label="Country" small>
          <select
            value={parts.country}
            onChange={(event) => setParts({ ...parts, country: event.target.value })}
          >
            {(countries.data ?? []).map((one) => (
              <option key={one.code} value={one.code}>
                {one.name}
              </option>
            ))}
          </select>
        </Field>
        <label className="flex min-h-8 items-center gap-2 self-end text-note">
          <input
            type="checkbox"
            checked={parts.named}
            onChange={(event) => setParts({ ...parts, named: event.target.checked })}
          />
          named in the last line
        </label>
        {part("street", "Street or box")}
        {part("town", "Town")}
        {part("region", "Region or state")}
        {part("postalCode", "Its postal code")}
      </div>
      {inOrder.error && typed && <p className="text-rust">{inOrder.error.message}</p>}
      {inOrder.data && typed && (
        <div className="mt-2 flex items-end justify-between gap-3">
          <p aria-label="In order" className="text-ink whitespace-pre-line">
            {inOrder.data.lines.join("\n")}
          </p>
          <Button disabled={!ready} onClick={take}>
            Take these lines
          </Button>
        </div>
      )}
    </details>
  );
}
