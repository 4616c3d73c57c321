import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, call } from "../api/client";
import { clock, longDate } from "../parts/dates";
import { Loaded } from "../parts/Loaded";

/** The files of the bank that were read, the newest first. */
export function BankReports({ account }: { account: number }) {
  const reports = useQuery({
    queryKey: ["bank-reports", account],
    queryFn: () => call(api.GET("/api/bank-reports", { params: { query: { account } } })),
  });
  return (
    <div className="flex flex-col gap-3">
      <h2 className="font-semibold">Files read</h2>
      <Loaded query={reports}>
        {(data) =>
          data.length === 0 ? (
            <p className="text-faint">
              None yet. A statement or a list of paid checks is read below; checks it names with their amount
              clear by themselves.
            </p>
          ) : (
            <ul>
              {data.slice(0, 40).map((one) => (
                <li key={one.id} className="border-hair border-t py-2">
                  <div className="flex justify-between">
                    <Link className="go" to={`/bank/told?account=${account}&report=${one.id}`}>
                      {one.kind} {one.number}
                    </Link>
                    <span className={one.open > 0 ? "text-brass" : "text-greentext"}>
                      {one.open > 0 ? `${one.open} to answer` : "answered"}
                    </span>
                  </div>
                  <div className="flex justify-between">
                    <span>until {longDate(one.to)}</span>
                    {one.closing && (
                      <span>
                        {one.closing.text} {one.closing.currency}
                      </span>
                    )}
                  </div>
                  <div className="text-faint text-note">
                    {one.movements} {one.movements === 1 ? "movement" : "movements"}, out {one.out.text}, in{" "}
                    {one.in.text}
                  </div>
                  <div className="text-faint text-note">
                    {one.readBy}, {clock(one.readAt)}, {one.format}
                  </div>
                  {one.gap && <div className="text-brass text-note">does not follow: {one.gap}</div>}
                </li>
              ))}
            </ul>
          )
        }
      </Loaded>
    </div>
  );
}
