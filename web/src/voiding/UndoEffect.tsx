import type { Schemas } from "../api/client";
import { Entry } from "./Entry";
import { FateWord } from "./UndoWords";
import { singleOf, type Fate, type Undo } from "./useUndo";

type Undone = Schemas["UndoneView"];

/** What undoing one payment would do: its entry, each invoice, the discount, the year, the bank. */
export function UndoEffect({ one, undo }: { one: Undone; undo?: Undo }) {
  if (one.refused && one.lines.length === 0) return <p className="callout-wrong">{one.refused}</p>;
  return (
    <div className="flex flex-col gap-3">
      {one.refused && <p className="callout-wrong">{one.refused}</p>}
      {one.warning && <p className="callout">{one.warning}</p>}
      <Entry head={one.period} lines={one.lines} />
      {one.items.length > 0 && (
        <table className="w-full text-note" aria-label={`What becomes of what ${one.name} paid`}>
          <thead className="text-faint">
            <tr>
              <th className="text-left font-semibold">Paid</th>
              <th className="text-left font-semibold">becomes</th>
              <th className="text-right font-semibold">Open now</th>
              <th className="text-right font-semibold">then</th>
            </tr>
          </thead>
          <tbody>
            {one.items.map((item) => (
              <tr key={item.invoice} className="border-hair border-t align-baseline">
                <td className="py-1 pr-2 font-mono">{item.reference}</td>
                <td className="pr-2">
                  {item.fate && undo ? (
                    <FateWord
                      name={`What becomes of ${item.reference}`}
                      text={item.becomes}
                      own={singleOf(one.payment, item.invoice) in undo.wish.single}
                      fate={undo.wish.single[singleOf(one.payment, item.invoice)] ?? undo.wish.others}
                      onFate={(fate: Fate) =>
                        undo.change({
                          single: { ...undo.wish.single, [singleOf(one.payment, item.invoice)]: fate },
                        })
                      }
                    />
                  ) : (
                    item.becomes
                  )}
                  {item.discount && (
                    <span className={item.lost ? "text-brass block" : "text-faint block"}>
                      discount {item.discount} {item.lost ? "is lost" : "can be earned again"}
                    </span>
                  )}
                </td>
                <td className="text-right">{item.openBefore}</td>
                <td className="text-right font-semibold">{item.openAfter}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {one.year && <p>{one.year}</p>}
      {one.bank && <p>{one.bank}</p>}
    </div>
  );
}
