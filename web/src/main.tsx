import { QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { Toaster } from "sonner";
import { Refused } from "./api/client";
import { App } from "./App";
import { ignoreHeldKeys } from "./parts/singleKeys";
import "./index.css";

ignoreHeldKeys();

const queries: QueryClient = new QueryClient({
  // a session that ended shows the door again, wherever it was noticed
  queryCache: new QueryCache({
    onError: (error, query) => {
      if (error instanceof Refused && error.status === 401 && query.queryKey[0] !== "session")
        void queries.invalidateQueries({ queryKey: ["session"] });
    },
  }),
  defaultOptions: {
    queries: {
      staleTime: 2_000,
      // whether the server is there only the server knows
      networkMode: "always",
      retry: (count, error) => !(error instanceof Refused && error.status >= 400) && count < 3,
    },
  },
});

createRoot(document.getElementById("root")!).render(
  <QueryClientProvider client={queries}>
    {/* a page is left at once: as a transition the old one lives on for a while, takes keys and writes its address */}
    <BrowserRouter useTransitions={false}>
      <App />
    </BrowserRouter>
    <Toaster
      position="bottom-right"
      offset={{ bottom: 48, right: 16 }}
      toastOptions={{
        style: {
          fontFamily: "var(--font-sans)",
          borderRadius: 0,
          background: "var(--sheet)",
          color: "var(--ink)",
          border: "1px solid var(--ink)",
          boxShadow: "none",
        },
        actionButtonStyle: { borderRadius: 0, background: "var(--harbour)", color: "var(--onharbour)" },
      }}
    />
  </QueryClientProvider>,
);
