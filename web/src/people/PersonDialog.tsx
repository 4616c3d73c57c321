import { api, call } from "../api/client";
import { useSession } from "../frame/session";
import { Dialog } from "../parts/Dialog";
import { ChecksEntry, Entry, Form } from "../parts/Form";
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
      <ChecksEntry
        name="roles"
        label="Roles"
        disabled={person?.id === session.personId}
        choices={ROLES.map(([role, what]) => ({
          value: role,
          text: (
            <>
              <span className="w-28">{role.toLowerCase()}</span>
              <span className="text-faint text-note">{what}</span>
            </>
          ),
        }))}
      />
    </Form>
  );
}
