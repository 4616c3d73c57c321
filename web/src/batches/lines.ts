import type { Schemas } from "../api/client";

/** A line of a batch with the claim it stands in. */
export type Line = Schemas["LineView"] & { claim: number; payee: string };
