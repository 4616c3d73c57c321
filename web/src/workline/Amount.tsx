import { useQuery } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";

/** What the stations hold; one answer for the whole frame. */
export function useWork() {
  return useQuery({
    queryKey: ["work"],
    queryFn: () => call(api.GET("/api/work")),
    refetchInterval: 60_000,
  });
}

/** An amount in a list of several currencies; the code stands where it is not the main account's. */
export function Amount({ of }: { of: Schemas["MoneyView"] }) {
  const main = useWork().data?.currency;
  return of.currency === main ? of.text : `${of.currency} ${of.text}`;
}
