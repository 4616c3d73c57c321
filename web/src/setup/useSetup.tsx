import { useQuery } from "@tanstack/react-query";
import { Navigate } from "react-router";
import { api, call } from "../api/client";

/** How far the company is set up, as the server says. */
export function useSetup() {
  return useQuery({ queryKey: ["setup"], queryFn: () => call(api.GET("/api/setup")) });
}

/** Where one begins: at what is due, or, while nothing can be paid yet, at what is missing. */
export function Home() {
  const setup = useSetup();
  if (setup.isPending) return null;
  return <Navigate to={setup.data && !setup.data.ready ? "/setup" : "/due"} replace />;
}
