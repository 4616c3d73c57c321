import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { AgreedFiles } from "./AgreedFiles";
import type { Account } from "./BankAccountPage";

type Setting = Schemas["FilesSetting"];

/** What the bank agreed on for the files of one way to pay. */
export function FilesOfWay({ account, way, name }: { account: Account; way: number; name: string }) {
  const [asking, setAsking] = useState(false);
  const setting = useQuery({
    queryKey: ["files-of-way", way],
    queryFn: () =>
      call(
        api.GET("/api/bank-accounts/{id}/ways/{way}/files", { params: { path: { id: account.id, way } } }),
      ),
  });
  const files = setting.data;
  if (!files) return null;
  return (
    <div>
      {files.known ? (
        <p className="text-faint">
          {files.ach
            ? `ACH files of ${files.ach.entryClass} entries for ${files.ach.companyName}, ${files.ach.balanced ? "balanced" : "not balanced"}`
            : `Files of credit transfers for ${files.transfers?.name}`}
          ; the bank takes them until {files.cutOff}, {files.ahead} banking{" "}
          {files.ahead === 1 ? "day" : "days"} ahead. The next reference is{" "}
          <b className="text-ink text-body font-mono">
            {files.prefix}
            {files.nextReference}
          </b>
          .{limits(files)}
        </p>
      ) : (
        <p className="text-brass">
          What the bank agreed on is not known yet: until then no file can be made of its payments.
        </p>
      )}
      {account.maySet && !account.closedOn && (
        <Button look="bare" onClick={() => setAsking(true)}>
          {files.known ? "Change what was agreed…" : "Say what the bank agreed on…"}
        </Button>
      )}
      <Dialog open={asking} onClose={() => setAsking(false)} title={`Files of ${name}`} wide>
        <AgreedFiles
          key={files.version}
          account={account}
          way={way}
          files={files}
          onClose={() => setAsking(false)}
        />
      </Dialog>
    </div>
  );
}

function limits(files: Setting): string {
  const each = [
    files.perPayment && `${files.perPayment} a payment`,
    files.perFile && `${files.perFile} a file, ${files.splits ? "several where it is more" : "no more"}`,
    files.perDay && `${files.perDay} a day`,
  ].filter(Boolean);
  return each.length > 0 ? ` It takes ${each.join("; ")}.` : "";
}
