import { useQuery } from "@tanstack/react-query";
import { Suspense, useEffect } from "react";
import { Route, Routes, useLocation } from "react-router";
import { api, call, Refused, type Schemas } from "./api/client";
import { Boundary } from "./frame/Boundary";
import { Connection } from "./frame/Connection";
import { SessionContext } from "./frame/session";
import { Button } from "./parts/Button";
import { showInZone } from "./parts/dates";
import { typedBy } from "./parts/useKept";
import { Password } from "./people/Password";
import { SignIn } from "./people/SignIn";
import { useSignOut } from "./people/useSignOut";
import { Home } from "./setup/useSetup";
import { fetchTheRest, VIEWS } from "./views";
import { WorkLine } from "./workline/WorkLine";

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
  showInZone(session.data.zone);
  typedBy(session.data.personId);
  return session.data.mustChangePassword ? (
    <FirstPassword name={session.data.name} />
  ) : (
    <Inside session={session.data} />
  );
}

/** Somebody else set the password: nothing goes on before it is one's own. */
function FirstPassword({ name }: { name: string }) {
  const leaving = useSignOut();
  return (
    <main className="mx-auto flex min-h-full max-w-md flex-col justify-center gap-4 p-8">
      <h1 className="text-2xl font-bold">Welcome, {name}</h1>
      <p>
        Somebody else set your password. Set one that only you know; nothing else can be done before that.
      </p>
      <Password first />
      <Button className="self-start" disabled={leaving.busy} onClick={() => void leaving.run()}>
        Sign out
      </Button>
    </main>
  );
}

function Inside({ session }: { session: Schemas["SessionView"] }) {
  const place = useLocation().pathname;
  useEffect(fetchTheRest, []);
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
