import { useQuery } from "@tanstack/react-query";
import { api, call } from "../api/client";
import { Button } from "../parts/Button";
import type { Kind, Import } from "./kinds";

/** Which column of the file stands for which of ours. */
export function Columns({
  job,
  onChosen,
}: {
  job: Import;
  onChosen: (mapping: Record<string, string>) => void;
}) {
  const columns = useQuery({
    queryKey: ["import-columns", job.kind],
    queryFn: () =>
      call(api.GET("/api/imports/columns/{kind}", { params: { path: { kind: job.kind as Kind } } })),
  });
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const data = new FormData(event.currentTarget);
        const mapping: Record<string, string> = {};
        data.forEach((value, name) => {
          if (value !== "") mapping[name] = String(value);
        });
        onChosen(mapping);
      }}
    >
      {columns.data?.map((column) => (
        <label key={column.name} className="grid grid-cols-[140px_1fr] items-center gap-2">
          <span className="font-mono text-note">
            {column.name}
            {column.required && <b className="text-brass"> *</b>}
          </span>
          <select
            name={column.name}
            defaultValue={
              job.headers.find((h) => h.toLowerCase().replace(/[\s-]+/g, "_") === column.name) ?? ""
            }
          >
            <option value="">no column</option>
            {job.headers.map((header) => (
              <option key={header}>{header}</option>
            ))}
          </select>
        </label>
      ))}
      <Button type="submit" look="deed" className="self-start">
        Check with these columns
      </Button>
    </form>
  );
}
