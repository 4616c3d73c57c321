import { createContext, useContext } from "react";
import type { Schemas } from "../api/client";

export const SessionContext = createContext<Schemas["SessionView"] | null>(null);

/** Who is signed in. */
export function useSession(): Schemas["SessionView"] {
  const session = useContext(SessionContext);
  if (!session) throw new Error("used outside a session");
  return session;
}
