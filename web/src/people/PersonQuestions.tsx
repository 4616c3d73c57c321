import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { toast } from "sonner";
import { api, call } from "../api/client";
import { DeedDialog } from "../parts/DeedDialog";
import { Field } from "../parts/Field";
import { PersonDialog } from "./PersonDialog";
import type { Member } from "./roles";

export type Asking = "add" | "change" | "password" | "disable" | "enable";

/** The one question about somebody that is open. */
export function PersonQuestions({
  person,
  asking,
  onClose,
}: {
  person: Member | undefined;
  asking: Asking | undefined;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const done = async (said: string) => {
    await queries.invalidateQueries();
    toast(said);
  };
  const path = { params: { path: { id: person?.id ?? 0 } } };
  const version = { version: person?.version ?? 0 };
  return (
    <>
      {(asking === "add" || (asking === "change" && person)) && (
        <PersonDialog
          key={asking + (person?.id ?? "")}
          person={asking === "change" ? person : undefined}
          onClose={onClose}
          done={done}
        />
      )}
      {asking === "password" && person && <PasswordDialog person={person} onClose={onClose} done={done} />}
      <DeedDialog
        open={asking === "disable"}
        onClose={onClose}
        title={`Disable ${person?.name}`}
        deed="Disable"
        grave
        run={async () => {
          await call(api.POST("/api/people/{id}/disable", { ...path, body: version }));
          await done(`${person?.name} can no longer sign in.`);
        }}
      >
        <p>Their sessions end at once, and no password lets them in. What they did stays as it is.</p>
      </DeedDialog>
      <DeedDialog
        open={asking === "enable"}
        onClose={onClose}
        title={`Let ${person?.name} in again`}
        deed="Let in"
        run={async () => {
          await call(api.POST("/api/people/{id}/enable", { ...path, body: version }));
          await done(`${person?.name} may sign in again.`);
        }}
      />
    </>
  );
}

function PasswordDialog({
  person,
  onClose,
  done,
}: {
  person: Member;
  onClose: () => void;
  done: (said: string) => Promise<void>;
}) {
  const [password, setPassword] = useState("");
  return (
    <DeedDialog
      open
      onClose={onClose}
      title={`New password for ${person.name}`}
      deed="Set the password"
      run={async () => {
        const { waits } = await call(
          api.POST("/api/people/{id}/password", {
            params: { path: { id: person.id } },
            body: { password },
          }),
        );
        await done(
          waits
            ? `The password of ${person.name} waits for a second person.`
            : `${person.name} has a new password; their sessions ended.`,
        );
      }}
    >
      <Field label="Password, 12 characters or more, told by another way">
        <input
          type="password"
          autoComplete="new-password"
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
      </Field>
    </DeedDialog>
  );
}
