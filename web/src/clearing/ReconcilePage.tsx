import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { AccountWord } from "../bankfiles/AccountWord";
import { useAddress } from "../frame/address";
import { Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { clock, longDate } from "../parts/dates";
import { DeedDialog } from "../parts/DeedDialog";
import { Loaded } from "../parts/Loaded";
import { DayWord } from "../parts/Word";

type View = Schemas["ReconciliationView"];
type Section = Schemas["ReconciledSection"];

/** Bank and ledger beside each other at the end of a day, and whoever signed that. */
export function ReconcilePage() {
  const session = useSession();
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const [signing, setSigning] = useState(false);
  const accounts = useQuery({
    queryKey: ["bank-accounts"],
    queryFn: () => call(api.GET("/api/bank-accounts")),
  });
  const account = accounts.data?.find((one) => String(one.id) === values.account) ?? accounts.data?.[0];
  const found = useQuery({
    queryKey: ["reconciliation", account?.id, values.on],
    enabled: account !== undefined,
    queryFn: () =>
      call(
        api.GET("/api/reconciliations", {
          params: { query: { account: account!.id, on: values.on } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
  const view = found.data;
  const on = view?.on;
  return (
    <Station
      title="Bank and ledger"
      sentence={
        <>
          Bank and ledger of{" "}
          <AccountWord
            account={account}
            accounts={accounts.data ?? []}
            onChange={(value) => change({ account: value, on: undefined })}
          />{" "}
          at the end of{" "}
          <DayWord
            name="On"
            text={values.on ? longDate(values.on) : on ? longDate(on) : "…"}
            value={values.on ?? on ?? ""}
            onChange={(next) => change({ on: next })}
          />
          .
        </>
      }
      answer={
        <>
          {view?.from && view.until && (
            <span>
              Statements tell of {longDate(view.from)} to {longDate(view.until)}.
            </span>
          )}
          <span className="ml-auto flex gap-4">
            {on && account && (
              <>
                <a
                  className="go"
                  target="_blank"
                  rel="noreferrer"
                  href={`/api/reports/reconciliation/pdf?account=${account.id}&on=${on}`}
                >
                  PDF
                </a>
                <a
                  className="go"
                  href={`/api/reports/reconciliation/csv?account=${account.id}&on=${on}`}
                  download
                >
                  CSV
                </a>
              </>
            )}
            <Link className="go" to={`/bank/paid?account=${account?.id ?? ""}`}>
              What waits for an answer
            </Link>
          </span>
        </>
      }
      list={
        <Loaded query={found}>
          {(data) =>
            data.on ? (
              <Beside view={data} />
            ) : (
              <p className="text-faint p-6">
                No statement of this account was read yet. Once one is, bank and ledger stand here beside each
                other, and what lies between them row by row.
              </p>
            )
          }
        </Loaded>
      }
      bar={
        on &&
        account && (
          <>
            <span className={view.explained ? "text-greentext" : "text-rust"}>
              {view.explained
                ? "Explained to the cent."
                : `${view.unexplained?.text} is not explained, so nobody can sign it.`}
            </span>
            <Button
              look="deed"
              className="ml-auto"
              disabled={!view.explained || !session.roles.includes("CONTROLLER")}
              onClick={() => setSigning(true)}
            >
              Sign {longDate(on)}…
            </Button>
            <DeedDialog
              open={signing}
              onClose={() => setSigning(false)}
              title={`Sign bank and ledger of ${longDate(on)}`}
              deed="Sign it"
              reason="Note, where one is needed"
              run={async (note) => {
                await call(
                  api.POST("/api/reconciliations/sign", { body: { account: account.id, on, note } }),
                );
                await queries.invalidateQueries();
              }}
            >
              <p>
                The bank says {view.bank?.text}, the ledger {view.ledger?.text}; what lies between them is
                kept row by row as it stands now, whatever changes later.
              </p>
            </DeedDialog>
          </>
        )
      }
      slip={view && <Signed view={view} />}
    />
  );
}

function Beside({ view }: { view: View }) {
  return (
    <div className="min-h-0 flex-1 overflow-auto px-5 py-3">
      <Sum words="The bank's balance" amount={view.bank?.text ?? ""} />
      {view.sections
        .filter((one) => one.count > 0 || one.kind === "OUTSTANDING" || one.kind === "IN_TRANSIT")
        .map((one) => (
          <Part key={one.kind} section={one} />
        ))}
      {!view.explained && (
        <p className="text-rust flex justify-between py-1.5">
          <b>Not explained</b>
          <b>{view.unexplained?.text}</b>
        </p>
      )}
      <Sum words="The ledger's cash" amount={view.ledger?.text ?? ""} />
    </div>
  );
}

function Sum({ words, amount }: { words: string; amount: string }) {
  return (
    <p className="border-ink flex justify-between border-y py-2 text-base">
      <b>{words}</b>
      <b>{amount}</b>
    </p>
  );
}

/** A figure, opened to its rows. */
function Part({ section }: { section: Section }) {
  return (
    <details className="group border-hair border-b">
      <summary className="flex min-h-9 cursor-pointer items-center gap-3 py-1">
        <span aria-hidden className={`w-3 group-open:rotate-90 ${section.count === 0 ? "invisible" : ""}`}>
          ▸
        </span>
        <span className="font-semibold">{section.words}</span>
        <span className="text-faint text-note">{section.about}</span>
        <span className="text-faint ml-auto text-note">
          {section.count === 0 ? "none" : section.count === 1 ? "1 row" : `${section.count} rows`}
        </span>
        <span className="w-32 text-right">{section.sum.text}</span>
      </summary>
      {section.count > 0 && (
        <table className="mb-2 w-full">
          <thead className="text-faint text-note text-left">
            <tr>
              <th className="w-32 font-normal">Day</th>
              <th className="font-normal">What</th>
              <th className="font-normal">
                <span className="sr-only">More of it</span>
              </th>
              <th className="w-32 text-right font-normal">Amount</th>
            </tr>
          </thead>
          <tbody>
            {section.rows.map((row, i) => (
              <tr key={i} className="border-hair h-8 border-t">
                <td>{longDate(row.day)}</td>
                <td>{row.what}</td>
                <td className="text-faint">{row.more}</td>
                <td className="text-right">{row.amount.text}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {section.more > 0 && (
        <p className="text-faint pb-2">{section.more} more stand in the CSV and the PDF.</p>
      )}
    </details>
  );
}

function Signed({ view }: { view: View }) {
  return (
    <div className="flex flex-col gap-3">
      <h2 className="font-semibold">Signed</h2>
      {view.signed.length === 0 && (
        <p className="text-faint">Nobody signed a day of this account yet; a controller does.</p>
      )}
      <ul>
        {view.signed.map((one) => (
          <li key={one.id} className="border-hair border-t py-2">
            <div className="flex justify-between">
              <b>{longDate(one.on)}</b>
              <a
                className="go"
                target="_blank"
                rel="noreferrer"
                href={`/api/reports/reconciliation/pdf?signed=${one.id}`}
              >
                as it was signed
              </a>
            </div>
            <div className="flex justify-between">
              <span>bank {one.bank.text}</span>
              <span>ledger {one.ledger.text}</span>
            </div>
            <div className="text-faint text-note">
              {one.signedBy}, {clock(one.signedAt)}
              {one.note && `: ${one.note}`}
            </div>
          </li>
        ))}
      </ul>
    </div>
  );
}
