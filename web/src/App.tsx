import { usePrefetchQuery, useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect } from "react";
import { Route, Routes, useLocation } from "react-router";
import { api, call, Refused, type Schemas } from "./api/client";
import { Boundary } from "./frame/Boundary";
import { Connection } from "./frame/Connection";
import { SessionContext } from "./frame/session";
import { showOn } from "./parts/dates";
import { KEPT_LISTS } from "./parts/keptLists";
import { typedBy } from "./parts/useKept";
import { SignIn } from "./people/SignIn";
import { Home } from "./setup/useSetup";
import { fetchTheRest, VIEWS } from "./views";
import { WorkLine } from "./workline/WorkLine";

const FirstPassword = lazy(() =>
  import("./people/FirstPassword").then((m) => ({ default: m.FirstPassword })),
);

/** The door, and everything behind it. */
export function App() {
  const session = useQuery({
    queryKey: ["session"],
    queryFn: () => call(api.GET("/api/session")),
    staleTime: 60_000,
  });
  if (session.isPending) return null;
  // only the server's own word opens the door; what failed otherwise leaves everything where it is
  if (session.error instanceof Refused && session.error.status === 401) return <SignIn />;
  if (!session.data)
    return (
      <>
        <Connection />
        <p className="p-8">{session.error.message}</p>
      </>
    );
  showOn(session.data.today, session.data.zone);
  typedBy(session.data.personId);
  return session.data.mustChangePassword ? (
    <Suspense>
      <FirstPassword name={session.data.name} />
    </Suspense>
  ) : (
    <Inside session={session.data} />
  );
}

function Inside({ session }: { session: Schemas["SessionView"] }) {
  const place = useLocation().pathname;
  useEffect(fetchTheRest, []);
  // how lists are arranged is here before the first of them
  usePrefetchQuery(KEPT_LISTS);
  return (
    <SessionContext value={session}>
      <div className="station flex h-full flex-col">
        <WorkLine />
        <Connection />
        <main className="flex min-h-0 flex-1 flex-col">
          <Boundary key={place}>
            <Suspense>
              <Routes>
                <Route path="/" element={<Home />} />
                {VIEWS.map(({ path, View }) => (
                  <Route key={path} path={path} element={<View />} />
                ))}
                <Route path="*" element={<p className="p-8">There is nothing at this address.</p>} />
              </Routes>
            </Suspense>
          </Boundary>
        </main>
      </div>
    </SessionContext>
  );
}
