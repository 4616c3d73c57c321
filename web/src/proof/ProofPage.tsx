import { useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { Vial } from "../parts/Vial";
import { Field } from "../parts/Field";

/** Every law, checked on the live data now. */
export function ProofPage() {
  const proof = useQuery({ queryKey: ["proof"], queryFn: () => call(api.GET("/api/proof")), staleTime: 0 });
  return (
    <Station
      title="Proof"
      sentence={<>The laws of the house, checked on the live data.</>}
      answer={
        proof.data && (
          <>
            <span
              className={proof.data.clean ? "text-greentext" : "text-rust"}
              data-proof={String(proof.data.clean)}
            >
              <b>{proof.data.clean ? "Every law holds" : "Something is broken"}</b>
            </span>
            <Figure value={proof.data.records}>audit records</Figure>
            <span>
              head <span className="font-mono">{proof.data.head.slice(0, 16)}…</span>
            </span>
          </>
        )
      }
      list={
        <Loaded query={proof}>
          {(data) => (
            <div className="min-h-0 flex-1 overflow-auto px-5 py-3" tabIndex={0} data-list>
              <table className="w-full max-w-5xl">
                <tbody>
                  {data.laws.map((law) => (
                    <tr key={law.law} className="border-hair border-b align-top">
                      <td className="w-14 py-2 font-mono">{law.law}</td>
                      <td className="w-16 py-2.5">
                        <Vial bubble={law.findings.length === 0 ? "LEVEL" : "OVER"} />
                      </td>
                      <td className="py-2 pr-4">
                        <div>{law.statement}.</div>
                        {law.findings.map((finding) => (
                          <div key={finding} className="text-rust">
                            {finding}.
                          </div>
                        ))}
                      </td>
                      <td className="text-faint py-2 text-right text-note whitespace-nowrap">
                        {law.findings.length === 0 ? "holds" : "broken"}, {law.looked}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
        </Loaded>
      }
      bar={
        proof.data && (
          <>
            <span className="text-faint text-note">
              Keep the head of the audit trail outside:{" "}
              <span className="font-mono break-all">{proof.data.head}</span>
            </span>
            <KeptHead />
            <Button disabled={proof.isFetching} onClick={() => void proof.refetch()}>
              Check again
            </Button>
          </>
        )
      }
    />
  );
}

/** Looks for a head hash that was kept outside: only that finds a trail whose end was cut off with its head. */
function KeptHead() {
  const [open, setOpen] = useState(false);
  const [hash, setHash] = useState("");
  const [found, setFound] = useState<Schemas["KeptHeadView"]>();
  return (
    <>
      <Button className="ml-auto" onClick={() => setOpen(true)}>
        Compare with a kept head…
      </Button>
      <DeedDialog
        open={open}
        onClose={() => {
          setOpen(false);
          setFound(undefined);
        }}
        title="Compare the trail with a head kept outside"
        deed="Compare"
        stays
        run={async () => {
          setFound(undefined);
          setFound(await call(api.GET("/api/proof/head", { params: { query: { hash } } })));
        }}
      >
        <Field label="The head hash, as a proof or an export printed it">
          <textarea
            rows={2}
            className="font-mono"
            value={hash}
            onChange={(event) => setHash(event.target.value)}
          />
        </Field>
        {found && (
          <p
            role="status"
            className={`mt-3 border-l-4 pl-3 ${found.found && found.findings.length === 0 ? "border-green text-greentext" : "border-rust text-rust"}`}
          >
            {found.sentence} {found.findings.join(". ")}
          </p>
        )}
      </DeedDialog>
    </>
  );
}
