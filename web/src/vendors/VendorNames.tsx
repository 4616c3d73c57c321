import { useQuery } from "@tanstack/react-query";
import { api, call } from "../api/client";
import { useRest } from "../parts/useRest";

/** The vendors that what is typed may mean, for the field that names the list. */
export function VendorNames({ id, text }: { id: string; text: string }) {
  const asked = useRest(text.trim());
  const found = useQuery({
    queryKey: ["vendors", asked],
    queryFn: () => call(api.GET("/api/vendors", { params: { query: { text: asked } } })),
  });
  return (
    <datalist id={id}>
      {found.data?.map((one) => (
        <option key={one.id} value={one.name}>
          {one.number}
        </option>
      ))}
    </datalist>
  );
}
