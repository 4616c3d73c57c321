import { useState } from "react";
import { api, call } from "../api/client";
import { useSession } from "../frame/session";
import { DeedDialog } from "../parts/DeedDialog";
import { Field } from "../parts/Field";
import { ROLES, type Member, type Role } from "./roles";

/** Somebody new, or what changes of somebody. */
export function PersonDialog({
  person,
  onClose,
  done,
}: {
  person: Member | undefined;
  onClose: () => void;
  done: (said: string) => Promise<void>;
}) {
  const session = useSession();
  const [signIn, setSignIn] = useState("");
  const [name, setName] = useState(person?.name ?? "");
  const [email, setEmail] = useState(person?.email ?? "");
  const [password, setPassword] = useState("");
  const [roles, setRoles] = useState<Role[]>(person?.roles ?? ["CLERK"]);
  return (
    <DeedDialog
      open
      onClose={onClose}
      title={person ? `Change ${person.name}` : "Add somebody"}
      deed={person ? "Keep the change" : "Add"}
      run={async () => {
        const { waits } = await call(
          person
            ? api.POST("/api/people/{id}", {
                params: { path: { id: person.id } },
                body: { version: person.version, name, email, roles },
              })
            : api.POST("/api/people", { body: { signIn, name, email, password, roles } }),
        );
        await done(
          waits
            ? `${name} is kept. Roles that let money out wait for a second person.`
            : person
              ? `${name} is changed.`
              : `${name} may sign in.`,
        );
      }}
    >
      <div className="flex flex-col gap-3">
        {!person && (
          <Field label="Name to sign in with">
            <input value={signIn} autoComplete="off" onChange={(event) => setSignIn(event.target.value)} />
          </Field>
        )}
        <Field label="Full name">
          <input value={name} maxLength={80} onChange={(event) => setName(event.target.value)} />
        </Field>
        <Field label="Mail address, empty for no mail">
          <input value={email} maxLength={120} onChange={(event) => setEmail(event.target.value)} />
        </Field>
        {!person && (
          <Field label="First password, 12 characters or more, told by another way">
            <input
              type="password"
              autoComplete="new-password"
              value={password}
              onChange={(event) => setPassword(event.target.value)}
            />
          </Field>
        )}
        <fieldset disabled={person?.id === session.personId} className="flex flex-col">
          <legend className="text-faint">Roles</legend>
          {ROLES.map(([role, what]) => (
            <label key={role} className="flex min-h-7 items-center gap-2">
              <input
                type="checkbox"
                className="min-h-0"
                checked={roles.includes(role)}
                onChange={(event) =>
                  setRoles(event.target.checked ? [...roles, role] : roles.filter((one) => one !== role))
                }
              />
              <span className="w-28">{role.toLowerCase()}</span>
              <span className="text-faint text-note">{what}</span>
            </label>
          ))}
        </fieldset>
      </div>
    </DeedDialog>
  );
}
