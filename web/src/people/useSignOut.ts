import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, call, Refused } from "../api/client";
import { useDeed } from "../parts/useDeed";

/** Leaving: the screen goes once the server has heard it. */
export function useSignOut() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  return useDeed(
    () =>
      call(api.DELETE("/api/session")).catch((error: unknown) => {
        // a session that has ended already is left
        if (!(error instanceof Refused && error.status === 401)) throw error;
      }),
    {
      done: () => {
        queries.clear();
        navigate("/");
      },
    },
  );
}
