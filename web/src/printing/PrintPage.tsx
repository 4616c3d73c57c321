import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { useAddress } from "../frame/address";
import { Figure, Station } from "../frame/Station";
import { useSession } from "../frame/session";
import { Button } from "../parts/Button";
import { DeedDialog } from "../parts/DeedDialog";
import { Grid, type Item } from "../parts/Grid";
import { useDeed } from "../parts/useDeed";
import { LevelStrip } from "../proof/LevelStrip";
import { TakeNumbers } from "./TakeNumbers";
import { ReleaseBlanks, TakeOut, type Out } from "./TakeOut";
import { usePrinting } from "./usePrinting";
import { ANSWERS, type Unnumbered, type Row, COLUMNS, KeptBack, Tray } from "./sheetRows";

/** What somebody says of some sheets. */
interface Said {
  keys: string[];
  said: keyof typeof ANSWERS;
  why: string;
}

/** Print a batch: the turn, the numbers, the tray sheet by sheet, and an answer for each. */
export function PrintPage() {
  const id = Number(useParams().id);
  const batch = useQuery({
    queryKey: ["batch", id],
    queryFn: () => call(api.GET("/api/batches/{id}", { params: { path: { id } } })),
  });
  const printing = usePrinting(id);
  return (
    <Loaded query={batch}>
      {(of) => <Loaded query={printing}>{(data) => <View key={id} batch={of} printing={data} />}</Loaded>}
    </Loaded>
  );
}

function View({ batch, printing }: { batch: Schemas["BatchView"]; printing: Schemas["PrintingView"] }) {
  const session = useSession();
  const queries = useQueryClient();
  const [values, change] = useAddress();
  const [selected, setSelected] = useState<Set<string>>(new Set());
  const [spoiling, setSpoiling] = useState<string[]>();
  const [out, setOut] = useState<Out>();
  const [releasing, setReleasing] = useState<number[]>();
  const cursor = values.at;
  const sheets = new Map(
    printing.runs.flatMap((run) => run.sheets.map((s) => [String(s.document), s] as const)),
  );
  const unnumbered = new Map<string, Unnumbered>(
    printing.unnumbered.map((one) => [`claim-${one.claim}`, one]),
  );
  const behind = printing.unnumbered.filter((one) => one.why);
  const unsent = printing.runs.find((run) => !run.sent);
  const advice = printing.advices.find((one) => !one.sent);
  const clerk = session.roles.includes("CLERK");
  const show = async (next: Schemas["PrintingView"]) => {
    queries.setQueryData(["printing", batch.id], next);
    await Promise.all(
      [["work"], ["level", batch.id], ["batch", batch.id], ["batches"]].map((queryKey) =>
        queries.invalidateQueries({ queryKey }),
      ),
    );
  };
  const look = () => queries.invalidateQueries({ queryKey: ["printing", batch.id] });
  const path = { params: { path: { id: batch.id } } };
  // answers are taken in the order of the keys; nothing is sent to a printer twice by a second press
  const answering = useDeed(
    ({ keys, said, why }: Said) =>
      call(
        api.POST("/api/batches/{id}/answers", {
          ...path,
          body: { answers: keys.map((key) => ({ document: Number(key), answer: said, why })) },
        }),
      ),
    { line: `sheets of ${batch.id}`, done: show, failed: look },
  );
  const sending = useDeed(
    (run: number) =>
      call(api.POST("/api/batches/{id}/runs/{run}/send", { params: { path: { id: batch.id, run } } })),
    { done: show, failed: look },
  );
  const printingBlanks = useDeed(() => call(api.POST("/api/batches/{id}/print-blanks", path)), {
    done: show,
    failed: look,
  });
  const say = (keys: string[], said: "GOOD" | "BLANK") => {
    if (keys.length > 0) void answering.run({ keys, said, why: "" });
  };
  const sheetItems: Item<Row>[] = printing.runs.flatMap((run, i) => [
    {
      key: `run-${run.run}`,
      heading: (
        <span>
          <b>Run {i + 1}</b>{" "}
          <span className="text-faint">
            {run.sheets.length} {run.sheets.length === 1 ? "sheet" : "sheets"}, by {run.madeBy}
            {run.sent ? "" : ", not handed to the printer yet"}
          </span>{" "}
          {run.sent && (
            <a
              className="text-harbour float-right underline"
              href={`/api/runs/${run.run}/copy.pdf`}
              target="_blank"
              rel="noreferrer"
            >
              marked copy as PDF
            </a>
          )}
        </span>
      ),
    },
    ...run.sheets.map((sheet) => ({ key: String(sheet.document), row: { sheet } })),
  ]);
  const items: Item<Row>[] = [
    ...(unnumbered.size === 0
      ? []
      : [
          {
            key: "unnumbered",
            heading: (
              <span>
                <b>Without a number</b>{" "}
                <span className="text-faint">
                  {unnumbered.size} {unnumbered.size === 1 ? "payment" : "payments"}
                  {behind.length > 0 && `, ${behind.length} of them kept back`}
                </span>
              </span>
            ),
          },
        ]),
    ...[...unnumbered].map(([key, waiting]) => ({ key, row: { waiting } })),
    ...sheetItems,
  ];
  const known = (key: string) => sheets.has(key) || unnumbered.has(key);
  const chosen = [...(selected.size > 0 ? selected : cursor && known(cursor) ? [cursor] : [])].filter(known);
  const blank = chosen.filter((key) => {
    const sheet = sheets.get(key);
    return sheet?.answer === "BLANK" && !sheet.posted;
  });
  const removable = chosen.filter((key) => unnumbered.has(key) || !sheets.get(key)?.posted);
  const takeOut = () => {
    const numbered = removable.map((key) => sheets.get(key)).filter((one) => one !== undefined);
    const rest = removable.map((key) => unnumbered.get(key)).filter((one) => one !== undefined);
    const all = [...numbered, ...rest];
    setOut({
      claims: [...new Set(all.map((one) => one.claim))],
      words: [...new Set(all.map((one) => one.payee))],
      numbered: numbered.some((one) => one.answer !== "SPOILED"),
    });
  };
  // whatever was handed over can be answered, even if nothing is known of the paper after a break
  const waiting = new Set(
    printing.runs
      .filter((run) => run.sent)
      .flatMap((run) => run.sheets.filter((s) => !s.answer).map((s) => String(s.document))),
  );
  const open = chosen.filter((key) => waiting.has(key));
  const allOpen = [...waiting];
  const spoilable = (key: string) => {
    const sheet = sheets.get(key);
    return waiting.has(key) || (sheet?.answer === "GOOD" && !sheet.posted);
  };
  const goodOpen = allOpen.filter((key) => sheets.get(key)?.outcome === "PRINTED");
  return (
    <Station
      title={`Print ${batch.name}`}
      sentence={
        <>
          Print <b>{batch.name}</b> from {printing.accountName}, <b>{batch.stateWords}</b>; the next number is{" "}
          <b className="font-mono">{printing.nextNumber}</b>.
        </>
      }
      answer={
        <>
          <Figure value={printing.toNumber}>to number, {printing.toNumberAmount}</Figure>
          <Figure value={printing.unanswered}>without an answer</Figure>
          <Figure value={printing.blanks}>still blank</Figure>
          {behind.length > 0 && (
            <Figure value={behind.length} look="text-brass">
              kept back
            </Figure>
          )}
          {printing.turn && (
            <span className="text-brass">
              <b>{printing.turn.mine ? "You have" : `${printing.turn.holder} has`} the turn</b>
              {printing.turn.mine ? "" : `, quiet for ${printing.turn.idleMinutes} minutes`}
            </span>
          )}
        </>
      }
      list={
        <Grid
          list="sheets"
          label="Sheets"
          items={items}
          columns={COLUMNS}
          cursor={cursor}
          onCursor={(key) => change({ at: key })}
          selected={selected}
          onSelect={setSelected}
          onSpace={
            clerk
              ? (keys) =>
                  say(
                    keys.filter((k) => waiting.has(k)),
                    "GOOD",
                  )
              : undefined
          }
          empty="Nothing to print, and no sheet yet."
        />
      }
      bar={
        clerk && (
          <>
            {(allOpen.length > 0 || [...sheets.keys()].some(spoilable)) && (
              <>
                {goodOpen.length > 0 && (
                  <Button look="deed" onClick={() => say(goodOpen, "GOOD")}>
                    {goodOpen.length} printed well: all good
                  </Button>
                )}
                <Button disabled={open.length === 0} onClick={() => say(open, "GOOD")}>
                  Good
                </Button>
                <Button
                  disabled={chosen.length === 0 || !chosen.every(spoilable)}
                  onClick={() => setSpoiling(chosen)}
                >
                  Spoiled…
                </Button>
                <Button disabled={open.length === 0} onClick={() => say(open, "BLANK")}>
                  Still blank
                </Button>
              </>
            )}
            {printing.printable && (
              <Button disabled={removable.length === 0} onClick={takeOut}>
                Take out…
              </Button>
            )}
            {blank.length > 0 && (
              <Button onClick={() => setReleasing(blank.map(Number))}>
                Give up {blank.length === 1 ? "its number" : `${blank.length} numbers`}…
              </Button>
            )}
            {advice && (
              <Button disabled={sending.busy} onClick={() => void sending.run(advice.run)}>
                Print {advice.pages} {advice.pages === 1 ? "page" : "pages"} of advice on plain paper
              </Button>
            )}
            {unsent && (
              <Button look="deed" disabled={sending.busy} onClick={() => void sending.run(unsent.run)}>
                Print the {unsent.sheets.length} sheets whose numbers are taken
              </Button>
            )}
            {printing.blanks > 0 && (
              <Button look="deed" disabled={printingBlanks.busy} onClick={() => void printingBlanks.run()}>
                Print {printing.blanks} blank {printing.blanks === 1 ? "sheet" : "sheets"} on{" "}
                {printing.blanks === 1 ? "its number" : "their numbers"}
              </Button>
            )}
            {printing.toNumber > 0 && <TakeNumbers batch={batch} printing={printing} onPrinted={show} />}
            {unnumbered.size === 0 && printing.runs.length > 0 && allOpen.length === 0 && (
              <Link to={`/post?at=${batch.id}`} className="text-harbour ml-auto font-bold underline">
                Every sheet is answered: go to posting
              </Link>
            )}
          </>
        )
      }
      slip={
        cursor && unnumbered.has(cursor) ? (
          <KeptBack payment={unnumbered.get(cursor)!} />
        ) : (
          <Tray sheet={cursor ? sheets.get(cursor) : undefined} />
        )
      }
      strip={
        <>
          <LevelStrip batch={batch.id} />
          <TakeOut batch={batch.id} out={out} onClose={() => setOut(undefined)} onDone={show} />
          <ReleaseBlanks
            batch={batch.id}
            documents={releasing}
            onClose={() => setReleasing(undefined)}
            onDone={show}
          />
          <DeedDialog
            open={spoiling !== undefined}
            onClose={() => setSpoiling(undefined)}
            title={`Spoiled: ${spoiling?.map((key) => sheets.get(key)?.number).join(", ")}`}
            deed={`Use up ${spoiling?.length === 1 ? "this number" : "these numbers"}`}
            grave
            reason="What happened to the paper"
            run={(why) => answering.must({ keys: spoiling ?? [], said: "SPOILED", why })}
          >
            <p>
              The number is kept in the register as spoiled, with no payment behind it. The payment waits for
              a new number.
            </p>
          </DeedDialog>
        </>
      }
    />
  );
}
