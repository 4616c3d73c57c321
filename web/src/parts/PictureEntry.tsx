import { useState } from "react";
import { useController } from "react-hook-form";
import { Field } from "./Field";
import { useEntryForm } from "./Form";

const MOST_BYTES = 400_000;

/** A picture of a form, as base 64: a PNG or an SVG. What it is the server says. */
export function PictureEntry({ name, label }: { name: string; label: string }) {
  const { control, formState, setError, keep } = useEntryForm();
  const { field } = useController({ control, name });
  const [called, setCalled] = useState("");
  const take = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > MOST_BYTES) {
      setError(name, { message: "The picture is larger than 400 KB. Save it smaller and choose it again." });
      return;
    }
    const bytes = new Uint8Array(await file.arrayBuffer());
    let text = "";
    for (const byte of bytes) text += String.fromCharCode(byte);
    setCalled(file.name);
    field.onChange(btoa(text));
    keep();
  };
  return (
    <Field label={label} finding={formState.errors[name]?.message}>
      <input
        type="file"
        accept="image/png,image/svg+xml,.png,.svg"
        onChange={(event) => void take(event.target.files?.[0])}
      />
      {called && field.value && <span className="text-faint text-note">{called} is chosen.</span>}
    </Field>
  );
}
