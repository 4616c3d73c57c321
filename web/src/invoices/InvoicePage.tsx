import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { TrailFold } from "../audit/TrailOf";
import { Figure, Station } from "../frame/Station";
import { clock, longDate } from "../parts/dates";
import { Facts } from "../parts/Facts";
import { Loaded } from "../parts/Loaded";
import { AheadPart } from "./AheadPart";
import { InvoiceDeeds } from "./InvoiceDeeds";
import { OffsetBack } from "./OffsetBack";
import { StatementPart } from "./StatementPart";

type Document = Schemas["InvoicePage"];

/** A document's own page: what it says, where it stands, and everything that became of it. */
export function InvoicePage() {
  const id = Number(useParams().id);
  const page = useQuery({
    queryKey: ["invoice", id],
    queryFn: () => call(api.GET("/api/invoices/{id}", { params: { path: { id } } })),
  });
  return <Loaded query={page}>{(document) => <View key={id} document={document} />}</Loaded>;
}

function View({ document }: { document: Document }) {
  return (
    <Station
      title={`${document.kindWords} ${document.reference}`}
      sentence={
        <>
          {document.kindWords} <b className="font-mono">{document.reference}</b> of{" "}
          <Link className="go" to={`/vendors/${document.vendor}`}>
            {document.vendorName}
          </Link>
          , {document.state}.
        </>
      }
      answer={
        <>
          <Figure value={`${document.open.text} ${document.open.currency}`}>
            open of {document.amount.text}
          </Figure>
          {document.kind === "INVOICE" && (
            <Figure value={longDate(document.dueDate)}>
              due{document.discount && `, ${document.discount}`}
            </Figure>
          )}
          <span>entry {document.id}</span>
          {document.corrects && (
            <Link className="go" to={`/invoices/${document.corrects}`}>
              corrects entry {document.corrects}
            </Link>
          )}
          {document.correctedBy && (
            <Link className="go" to={`/invoices/${document.correctedBy}`}>
              corrected by entry {document.correctedBy}
            </Link>
          )}
        </>
      }
      list={
        <div tabIndex={0} className="flex min-h-0 flex-1 flex-col gap-6 overflow-auto p-5">
          <AheadPart document={document} />
          {document.lines.length > 0 && <Lines document={document} />}
          <Settled document={document} />
          {document.statement && <StatementPart document={document} />}
          <Batches document={document} />
          <Notes document={document} />
        </div>
      }
      bar={<InvoiceDeeds document={document} />}
      slip={
        <div className="flex flex-col gap-4">
          <Facts
            facts={
              [
                ["Dated", longDate(document.invoiceDate)],
                ["In the ledger", longDate(document.ledgerDate)],
                ["Goes to", document.addresses.find((one) => one.id === document.remitTo)?.words ?? ""],
                ["Own check", document.ownCheck ? "yes" : ""],
                ["Held", document.hold ?? ""],
                ["Usable from", document.usableFrom ? longDate(document.usableFrom) : ""],
                ["No discount on", document.notDiscountable],
                ["Came with", document.ahead ? "its payment" : (document.file ?? "entered by hand")],
              ].filter(([, value]) => value !== "") as [string, string][]
            }
          />
          <TrailFold subject={`invoice ${document.id}`} name="this document" />
        </div>
      }
    />
  );
}

const HEAD = "text-faint text-note text-left";

function Lines({ document }: { document: Document }) {
  return (
    <section aria-label="What it says">
      <h2 className="mb-1 text-base font-bold">What it says</h2>
      <table className="w-full">
        <thead className={HEAD}>
          <tr>
            <th className="font-semibold">Account</th>
            <th className="font-semibold">Job</th>
            <th className="text-right font-semibold">Amount</th>
          </tr>
        </thead>
        <tbody>
          {document.lines.map((line, i) => (
            <tr key={i} className="border-hair border-t">
              <td className="py-1">
                {line.code} {line.account}
              </td>
              <td>{line.job}</td>
              <td className="text-right">{line.amount}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Settled({ document }: { document: Document }) {
  return (
    <section aria-label="What moved what is open">
      <h2 className="mb-1 text-base font-bold">What moved what is open</h2>
      {document.settled.length === 0 ? (
        <p className="text-faint">Nothing yet: all of it is open.</p>
      ) : (
        <table className="w-full">
          <thead className={HEAD}>
            <tr>
              <th className="font-semibold">In the ledger</th>
              <th className="font-semibold">What</th>
              <th className="font-semibold">By</th>
              <th className="text-right font-semibold">Moved</th>
              <th className="text-right font-semibold">Open then</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {document.settled.map((row, i) => (
              <tr key={i} className="border-hair border-t">
                <td className="py-1">{longDate(row.date)}</td>
                <td>{row.words}</td>
                <td>
                  {row.to ? (
                    <Link className="go" to={row.to}>
                      {row.by}
                    </Link>
                  ) : (
                    row.by
                  )}
                </td>
                <td className="text-right">{row.amount}</td>
                <td className="text-right font-semibold">{row.open}</td>
                <td className="pl-3 text-right">
                  {row.offset && <OffsetBack offset={row.offset} by={row.by} />}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Batches({ document }: { document: Document }) {
  if (document.batches.length === 0) return null;
  return (
    <section aria-label="Batches it stood in">
      <h2 className="mb-1 text-base font-bold">Batches it stood in</h2>
      <ul>
        {document.batches.map((one, i) => (
          <li key={i} className="border-hair flex gap-3 border-t py-1">
            <Link className="go" to={`/batches/${one.batch}`}>
              {one.name}
            </Link>
            <span className="text-faint flex-1">{one.state}</span>
            {one.check && (
              <Link className="go" to={`/register?series=all&check=${one.check}`}>
                check {one.number}
              </Link>
            )}
            <span className="w-28 text-right">{one.cash}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Notes({ document }: { document: Document }) {
  if (document.notes.length === 0) return null;
  return (
    <section aria-label="Notes">
      <h2 className="mb-1 text-base font-bold">Notes</h2>
      <ul>
        {document.notes.map((note, i) => (
          <li key={i} className="border-hair border-t py-1">
            {note.text}
            <span className="text-faint block text-note">
              {note.who}, {clock(note.at)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
