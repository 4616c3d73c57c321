import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { toast } from "sonner";
import { api, call } from "../api/client";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { useDeed } from "../parts/useDeed";
import type { useTried } from "./Compared";

const LONGEST = 200_000;

/** A layout goes out as a file, and comes in as one. */
export function OutAndIn({
  name,
  text,
  may,
  onBrought,
  onCopied,
}: {
  name: string;
  text: string;
  may: boolean;
  onBrought: (text: string) => void;
  onCopied: (() => void) | undefined;
}) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <span className="ml-auto flex gap-4">
      <a
        className="go"
        download={`${name}.json`}
        href={`data:application/json;charset=utf-8,${encodeURIComponent(text)}`}
      >
        As a file
      </a>
      {may && (
        <>
          <button className="go" onClick={() => file.current?.click()}>
            Bring one in
          </button>
          <input
            ref={file}
            type="file"
            accept=".json,application/json"
            hidden
            aria-label="A layout as a file"
            onChange={async (event) => {
              const brought = event.target.files?.[0];
              if (brought && brought.size <= LONGEST) onBrought(await brought.text());
              else if (brought) toast("This is no layout: it is too long to be one.");
              event.target.value = "";
            }}
          />
          {onCopied && (
            <button className="go" onClick={onCopied}>
              Copy
            </button>
          )}
        </>
      )}
    </span>
  );
}

/** Keeps what was changed as the next version, or tries it at the bank first. */
export function Keeping({
  account,
  text,
  changed,
  tried,
  onForget,
  onKept,
}: {
  account: number;
  text: string;
  changed: boolean;
  tried: ReturnType<typeof useTried>;
  onForget: () => void;
  onKept: (id: number) => void;
}) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  const test = useDeed(
    async () => {
      const content = (await call(
        api.POST("/api/bank-layouts/test-file", { body: { account, text }, parseAs: "blob" }),
      )) as unknown as Blob;
      handOver(content, `TEST-${tried.data?.fileName ?? "file"}`);
    },
    { said: () => "The test file is made. Nothing of it counts." },
  );
  return (
    <>
      <Button
        look="deed"
        disabled={!changed || Boolean(tried.error) || (tried.data?.wrong.length ?? 0) > 0}
        onClick={() => setAsking(true)}
      >
        Keep as the next version…
      </Button>
      <Button disabled={!changed} onClick={onForget}>
        As it was
      </Button>
      {tried.data?.preview && (
        <Button disabled={test.busy} onClick={() => void test.run()}>
          Make a test file
        </Button>
      )}
      <span className="text-faint text-note">Another name in it makes another layout.</span>
      <DeedDialog
        open={asking}
        onClose={() => setAsking(false)}
        title="Keep this layout"
        deed="Keep it"
        run={async () => {
          const kept = await call(api.POST("/api/bank-layouts", { body: { text } }));
          onForget();
          await queries.invalidateQueries({ queryKey: ["bank-layouts"] });
          await queries.invalidateQueries({ queryKey: ["bank-file-layouts"] });
          toast(`Kept as ${kept.name}, version ${kept.version}.`);
          onKept(kept.id);
        }}
      >
        <p>
          It is kept as the next version of the layout of its name. Files made before stay as they are; an
          account whose files are made in an earlier version goes on with that until its page says otherwise,
          from which day on.
        </p>
      </DeedDialog>
    </>
  );
}

/** Gives the browser's user a file. */
function handOver(content: Blob, name: string) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
