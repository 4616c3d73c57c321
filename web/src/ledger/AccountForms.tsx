import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { ChoiceEntry, DayEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";

type Account = Schemas["AccountView"];
type Kind = Schemas["NewLedgerAccount"]["kind"];
type Role = Schemas["AccountRoleWanted"]["role"];
interface Asked {
  open: boolean;
  onClose: () => void;
}

/** Shows what was changed, and closes. */
function useShown(onClose: () => void) {
  const queries = useQueryClient();
  return async () => {
    await queries.invalidateQueries();
    onClose();
  };
}

export function NewAccount({ open, onClose }: Asked) {
  return (
    <Dialog open={open} onClose={onClose} title="Add an account">
      <NewAccountForm onClose={onClose} />
    </Dialog>
  );
}

function NewAccountForm({ onClose }: { onClose: () => void }) {
  const kinds = useQuery({
    queryKey: ["account-kinds"],
    queryFn: () => call(api.GET("/api/ledger-accounts/kinds")),
  });
  const form = useKeptForm(
    "new account",
    { code: "", name: "", kind: "EXPENSE" },
    (typed) => call(api.POST("/api/ledger-accounts", { body: { ...typed, kind: typed.kind as Kind } })),
    { done: useShown(onClose), said: (_, typed) => `Account ${typed.code} ${typed.name} is there.` },
  );
  return (
    <Form form={form} label="New account" deed="Add the account" onClose={onClose} className="gap-3">
      <Entry name="code" label="Code; it never changes" autoFocus look="w-40 font-mono" />
      <Entry name="name" label="Name" />
      <ChoiceEntry
        name="kind"
        label="Kind; it never changes"
        choices={(kinds.data ?? []).map((kind) => ({ value: kind.kind, text: kind.words }))}
      />
    </Form>
  );
}

export function ChangeAccount({ account, open, onClose }: Asked & { account: Account }) {
  return (
    <Dialog open={open} onClose={onClose} title={`Change ${account.code} ${account.name}`}>
      <ChangeForm account={account} onClose={onClose} />
    </Dialog>
  );
}

function ChangeForm({ account, onClose }: { account: Account; onClose: () => void }) {
  const queries = useQueryClient();
  const form = useKeptForm(
    `account ${account.id}`,
    { name: account.name, closedFrom: account.closedFrom ?? "" },
    (typed) =>
      call(
        api.POST("/api/ledger-accounts/{id}", {
          params: { path: { id: account.id } },
          body: {
            name: typed.name,
            closedFrom: typed.closedFrom === "" ? undefined : typed.closedFrom,
            version: account.version,
          },
        }),
      ),
    {
      done: useShown(onClose),
      failed: () => queries.invalidateQueries({ queryKey: ["ledger-accounts"] }),
      said: () => "The account is as you said.",
    },
  );
  return (
    <Form form={form} label="Account" deed="Change the account" onClose={onClose} className="gap-3">
      <Entry name="name" label="Name" autoFocus />
      <DayEntry
        name="closedFrom"
        label="Closed from; nothing dated so or later is written to it. Empty: it is open"
      />
    </Form>
  );
}

export function GiveRole({ account, open, onClose }: Asked & { account: Account }) {
  return (
    <Dialog open={open} onClose={onClose} title={`What ${account.code} ${account.name} is for`}>
      <RoleForm account={account} onClose={onClose} />
    </Dialog>
  );
}

function RoleForm({ account, onClose }: { account: Account; onClose: () => void }) {
  const roles = useQuery({
    queryKey: ["account-roles"],
    queryFn: () => call(api.GET("/api/ledger-accounts/roles")),
  });
  const fitting = (roles.data ?? []).filter((role) => role.kinds.includes(account.kind));
  const form = useKeptForm(
    `role of ${account.id}`,
    { role: fitting[0]?.role ?? "", currency: "" },
    (typed) =>
      call(
        api.POST("/api/ledger-accounts/{id}/role", {
          params: { path: { id: account.id } },
          body: {
            role: (typed.role || fitting[0]?.role) as Role,
            currency: typed.currency.trim() === "" ? undefined : typed.currency.trim().toUpperCase(),
          },
        }),
      ),
    { done: useShown(onClose), said: () => "What is written from now on goes there." },
  );
  const chosen = fitting.find((role) => role.role === (form.watch("role") || fitting[0]?.role));
  if (roles.data && fitting.length === 0)
    return <p>An account of the kind {account.kindWords} plays none of the roles there are.</p>;
  return (
    <Form form={form} label="Role" deed="Give it this role" onClose={onClose} className="gap-3">
      <ChoiceEntry
        name="role"
        label="From now on it takes"
        choices={fitting.map((role) => ({ value: role.role, text: role.words }))}
      />
      {chosen?.perCurrency && (
        <Entry name="currency" label="In which currency, such as USD" look="w-24 font-mono" autoFocus />
      )}
      <p className="text-faint">
        What was written before stays where it is. The account that had this role keeps its entries.
      </p>
    </Form>
  );
}
