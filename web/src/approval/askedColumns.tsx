import type { Schemas } from "../api/client";
import type { Column } from "../parts/Grid";
import { markWords } from "../marks/Marks";

export type Claim = Schemas["AskedClaim"];

const SINCE: Record<string, string> = { NEW: "new", CHANGED: "was", SAME: "as before" };

const PAYEE: Column<Claim> = {
  key: "payee",
  title: "Payee",
  width: "minmax(150px,1.2fr)",
  cell: (claim) => <span className={claim.since === "SAME" ? "" : "font-semibold"}>{claim.payee}</span>,
};

const LOOK: Column<Claim> = {
  key: "deserves-a-look",
  title: "Deserves a look",
  width: "minmax(150px,1.6fr)",
  cell: (claim) =>
    claim.inTheWay.length > 0 ? (
      <span className="text-rust" title={claim.inTheWay.join("; ")}>
        {claim.inTheWay.join(" · ")}
      </span>
    ) : (
      <span className="text-brass">
        {markWords(claim.marks)}
        {claim.marks.some((mark) => mark.answer) && <span className="text-faint"> · answered</span>}
      </span>
    ),
};

const LINES: Column<Claim> = {
  key: "lines",
  title: "Lines",
  width: "46px",
  right: true,
  cell: (claim) => claim.lines,
};

const AMOUNT: Column<Claim> = {
  key: "amount",
  title: "Amount",
  width: "100px",
  right: true,
  cell: (claim) => <b>{claim.amount}</b>,
};

export const COLUMNS = [PAYEE, LOOK, LINES, AMOUNT];

export const COMPARED: Column<Claim>[] = [
  PAYEE,
  LOOK,
  {
    key: "before",
    title: "Before",
    width: "100px",
    right: true,
    cell: (claim) => (claim.was ? <s className="text-faint">{claim.was}</s> : SINCE[claim.since]),
  },
  AMOUNT,
];

export const NARROW: Column<Claim>[] = [
  {
    key: "payee",
    title: "Payee",
    width: "1fr",
    cell: (claim) => (
      <>
        {(claim.marks.length > 0 || claim.inTheWay.length > 0) && (
          <b className="text-brass" aria-label="marked">
            !{" "}
          </b>
        )}
        {claim.payee}
      </>
    ),
  },
  AMOUNT,
];
