package leveltally.core.invoices;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.money.Money;

/**
 * The entry of what arrives: an invoice debits its lines and credits payables, a credit the other way round. A line below
 * zero (an allowance, a correction) stands on the other side.
 */
public final class ArrivalEntry {
    private ArrivalEntry() {}

    /** One account line of a document; its amount may be below zero, and zero says nothing to the ledger. */
    public record Line(AccountId account, Money amount) {}

    /** @throws Refusal when the lines do not come to more than zero */
    public static JournalEntry of(
            LocalDate ledgerDate, String text, boolean credit, List<Line> lines, AccountId payables) {
        Money total = Money.sum(
                lines.stream().map(Line::amount).toList(), lines.get(0).amount().currency());
        if (!total.isPositive()) {
            throw Refusal.invalidField(
                    "amount-not-positive",
                    "lines",
                    "The lines come to " + total + "; a document must come to more than zero. "
                            + "What the vendor owes is entered as a credit.");
        }
        List<JournalLine> entry = new ArrayList<>();
        for (Line line : lines) {
            if (!line.amount().isZero()) {
                entry.add(side(credit, line.account(), line.amount()));
            }
        }
        entry.add(side(!credit, payables, total));
        return new JournalEntry(ledgerDate, text, entry);
    }

    private static JournalLine side(boolean credit, AccountId account, Money amount) {
        Money size = amount.isNegative() ? amount.negated() : amount;
        return credit == amount.isNegative() ? JournalLine.debit(account, size) : JournalLine.credit(account, size);
    }
}
