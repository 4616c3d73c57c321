import { useWatch } from "react-hook-form";
import { api, call } from "../api/client";
import { useSession } from "../frame/session";
import { Dialog } from "../parts/Dialog";
import { Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import { ROLES, type Member, type Role } from "./roles";

interface Of {
  person: Member | undefined;
  onClose: () => void;
  done: (said: string) => Promise<void>;
}

/** Somebody new, or what changes of somebody. */
export function PersonDialog(of: Of) {
  return (
    <Dialog open onClose={of.onClose} title={of.person ? `Change ${of.person.name}` : "Add somebody"}>
      <PersonForm {...of} />
    </Dialog>
  );
}

const rolesOf = (text: string) => text.split(" ").filter(Boolean) as Role[];

function PersonForm({ person, onClose, done }: Of) {
  const session = useSession();
  const form = useKeptForm(
    `person ${person?.id ?? "new"}`,
    {
      signIn: "",
      name: person?.name ?? "",
      email: person?.email ?? "",
      password: "",
      roles: (person?.roles ?? ["CLERK"]).join(" "),
    },
    ({ signIn, name, email, password, roles }) =>
      call(
        person
          ? api.POST("/api/people/{id}", {
              params: { path: { id: person.id } },
              body: { version: person.version, name, email, roles: rolesOf(roles) },
            })
          : api.POST("/api/people", { body: { signIn, name, email, password, roles: rolesOf(roles) } }),
      ),
    {
      secret: ["password"],
      done: async ({ waits }, { name }) => {
        await done(
          waits
            ? `${name} is kept. Roles that let money out wait for a second person.`
            : person
              ? `${name} is changed.`
              : `${name} may sign in.`,
        );
        onClose();
      },
    },
  );
  const roles = rolesOf(useWatch({ control: form.control, name: "roles" }));
  const give = (role: Role, given: boolean) => {
    const next = given ? [...roles, role] : roles.filter((one) => one !== role);
    form.setValue("roles", next.join(" "));
    form.keep();
  };
  return (
    <Form
      form={form}
      label="Person"
      deed={person ? "Keep the change" : "Add"}
      onClose={onClose}
      className="gap-3"
    >
      {!person && <Entry name="signIn" label="Name to sign in with" autoFocus />}
      <Entry name="name" label="Full name" />
      <Entry name="email" label="Mail address, empty for no mail" />
      {!person && (
        <Entry
          name="password"
          type="password"
          autoComplete="new-password"
          label="First password, 12 characters or more, told by another way"
        />
      )}
      <fieldset disabled={person?.id === session.personId} className="flex flex-col">
        <legend className="text-faint">Roles</legend>
        {ROLES.map(([role, what]) => (
          <label key={role} className="flex min-h-7 items-center gap-2">
            <input
              type="checkbox"
              className="min-h-0"
              checked={roles.includes(role)}
              onChange={(event) => give(role, event.target.checked)}
            />
            <span className="w-28">{role.toLowerCase()}</span>
            <span className="text-faint text-note">{what}</span>
          </label>
        ))}
        {form.formState.errors.roles && (
          <span role="alert" className="text-rust text-note">
            {form.formState.errors.roles.message}
          </span>
        )}
      </fieldset>
    </Form>
  );
}
