import { Button } from "../parts/Button";
import { Password } from "./Password";
import { useSignOut } from "./useSignOut";

/** Somebody else set the password: nothing goes on before it is one's own. */
export function FirstPassword({ name }: { name: string }) {
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
