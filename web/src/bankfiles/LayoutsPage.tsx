import { useQuery } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Loaded } from "../parts/Loaded";
import { ChoiceWord } from "../parts/Word";
import { LayoutEditor, nameOf } from "./LayoutEditor";

type Version = Schemas["BankLayoutVersion"];
type Account = Schemas["BankAccountView"];

/** The layouts of bank files: field by field or as text, tried on what waits while it is changed, kept as a version. */
export function LayoutsPage() {
  const layouts = useQuery({ queryKey: ["bank-layouts"], queryFn: () => call(api.GET("/api/bank-layouts")) });
  const accounts = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
  });
  return (
    <Loaded query={layouts}>
      {(versions) => (
        <Loaded query={accounts}>
          {(known) =>
            known.length === 0 ? (
              <p className="p-5">Open a bank account first: a layout is tried on what waits of one.</p>
            ) : (
              <Chosen versions={versions} accounts={known} />
            )
          }
        </Loaded>
      )}
    </Loaded>
  );
}

function Chosen({ versions, accounts }: { versions: Version[]; accounts: Account[] }) {
  const [values, change] = useAddress();
  const used = versions.find((one) => one.usedBy) ?? versions[0]!;
  const version = versions.find((one) => String(one.id) === values.layout) ?? used;
  const account = accounts.find((one) => String(one.id) === values.account) ?? accounts[0]!;
  const text = useQuery({
    queryKey: ["bank-layout", version.id],
    queryFn: () => call(api.GET("/api/bank-layouts/{id}", { params: { path: { id: version.id } } })),
  });
  return (
    <Loaded query={text}>
      {(given) => (
        <LayoutEditor
          key={version.id}
          version={version}
          versions={versions}
          given={given.text}
          account={account}
          sentence={
            <>
              The layout{" "}
              <ChoiceWord
                name="Layout"
                text={nameOf(version)}
                value={String(version.id)}
                choices={versions.map((one) => ({
                  value: String(one.id),
                  text: nameOf(one),
                  detail: one.usedBy ? `files of ${one.usedBy}` : one.newest ? "" : "an earlier one",
                }))}
                onChange={(layout) => change({ layout })}
              />
              , tried on what waits of{" "}
              <ChoiceWord
                name="Account"
                text={account.name}
                value={String(account.id)}
                choices={accounts.map((one) => ({ value: String(one.id), text: one.name }))}
                onChange={(next) => change({ account: next })}
              />
              .
            </>
          }
          onKept={(id) => change({ layout: String(id) })}
        />
      )}
    </Loaded>
  );
}
