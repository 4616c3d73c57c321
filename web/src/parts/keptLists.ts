import { queryOptions } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";

export type Arrangement = Schemas["Arrangement"];

/** Every list as whoever is signed in arranged it. */
export const KEPT_LISTS = queryOptions({
  queryKey: ["kept-lists"],
  queryFn: () => call(api.GET("/api/lists")),
  staleTime: Infinity,
});
