import { useQuery } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { useRest } from "../parts/useRest";
import { Face } from "../parts/Face";
import type { Column } from "../parts/Grid";

export const ANSWERS = { GOOD: "good", SPOILED: "spoiled", BLANK: "still blank", AGAIN: "prints again" };

type Sheet = Schemas["SheetView"];

export type Unnumbered = Schemas["UnnumberedView"];

export type Row =
  | { sheet: Sheet; /** Whether a printer had it. */ sent: boolean; waiting?: undefined }
  | { sheet?: undefined; sent?: undefined; waiting: Unnumbered };

const TRAY: Record<string, string> = {
  PRINTED: "printed",
  SMEARED: "smeared",
  TORN: "torn in the jam",
  BLANK: "blank",
};

export const COLUMNS: Column<Row>[] = [
  {
    key: "number",
    title: "Number",
    width: "84px",
    cell: ({ sheet }) => (sheet ? <span className="font-mono">{sheet.number}</span> : ""),
  },
  {
    key: "payee",
    title: "Payee",
    width: "minmax(150px,2fr)",
    cell: (row) => (row.sheet ?? row.waiting).payee,
  },
  {
    key: "amount",
    title: "Amount",
    width: "100px",
    right: true,
    cell: (row) => (row.sheet ?? row.waiting).amount,
  },
  {
    key: "goes",
    title: "Goes",
    width: "92px",
    cell: (row) => {
      const { goes } = row.sheet ?? row.waiting;
      return <span className="text-faint">{goes}</span>;
    },
  },
  {
    key: "in-the-tray",
    title: "In the tray",
    width: "120px",
    cell: ({ sheet, sent }) =>
      sheet && sent ? (
        <span className={sheet.outcome && sheet.outcome !== "PRINTED" ? "text-brass" : "text-faint"}>
          {sheet.outcome ? TRAY[sheet.outcome] : "look there"}
        </span>
      ) : (
        ""
      ),
  },
  {
    key: "answer",
    title: "Answer",
    width: "minmax(120px,1fr)",
    cell: ({ sheet: s, sent, waiting }) =>
      !s ? (
        waiting.why ? (
          <span className="text-brass">kept back: {waiting.why}</span>
        ) : (
          <span className="text-faint">waits for its number</span>
        )
      ) : s.answer ? (
        <span className={s.answer === "GOOD" ? "text-greentext" : "text-brass"}>
          {ANSWERS[s.answer]}
          {s.why && `: ${s.why}`}
          {s.posted && ", posted"}
        </span>
      ) : (
        <span className="text-faint">{sent ? "look at the paper" : "not printed yet"}</span>
      ),
  },
];

/** A payment that has no number yet, and what keeps it back. */
export function KeptBack({ payment }: { payment: Unnumbered }) {
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-base font-bold">{payment.payee}</h2>
      <p>
        <b>{payment.amount}</b>, {payment.why ? "kept back while the others go on" : "waits for its number"}.
      </p>
      {payment.why && (
        <>
          <p className="callout text-brass">{payment.why}</p>
          <p className="text-faint">
            Mend what keeps it back and print again, or take it out: its invoices then come free for another
            batch.
          </p>
        </>
      )}
    </div>
  );
}

/** One sheet as it lies in the tray; never a check. */
export function Tray({ sheet }: { sheet: Sheet | undefined }) {
  const rested = useRest(sheet?.document);
  const page = useQuery({
    queryKey: ["tray", rested],
    enabled: rested !== undefined,
    queryFn: () =>
      call(api.GET("/api/documents/{document}/page", { params: { path: { document: rested! } } })),
  });
  if (!sheet)
    return <p className="text-faint">Move the cursor onto a sheet to see it as it lies in the tray.</p>;
  // of a real printer's tray nothing is known: what should lie there is shown, to be compared with the paper
  const shown = sheet.outcome !== "TORN" && sheet.outcome !== "BLANK";
  return (
    <div className="flex flex-col gap-3">
      <h2 className="font-semibold">
        Sheet {sheet.number}, {sheet.outcome ? TRAY[sheet.outcome] : "as it should look"}
        {sheet.pages > 1 &&
          `, ${sheet.pages - 1} ${sheet.pages === 2 ? "page" : "pages"} of remittance advice`}
      </h2>
      {!shown && (
        <div className="border-hair bg-sheet text-faint flex aspect-[8.5/11] items-center justify-center border">
          {sheet.outcome === "TORN" ? "torn in the jam" : "blank paper"}
        </div>
      )}
      {shown && page.data && (
        <div className={sheet.outcome === "SMEARED" ? "blur-[2px]" : ""}>
          <Face page={page.data} label={`Sheet ${sheet.number}, not a check`} />
        </div>
      )}
    </div>
  );
}
