package leveltally.core.invoices;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.money.Money;

/** The entry of an offset: none, unless its invoices and credits stand in different payables accounts. */
public final class OffsetEntry {
    private OffsetEntry() {}

    public static Optional<JournalEntry> of(
            LocalDate ledgerDate, String text, Settling offset, Map<InvoiceId, AccountId> payables) {
        Map<Long, Money> debits = new TreeMap<>();
        for (Settling.Line line : offset.lines()) {
            debits.merge(payables.get(line.invoice().id()).value(), line.credit(), Money::plus);
        }
        for (Settling.Use use : offset.uses()) {
            debits.merge(payables.get(use.credit().id()).value(), use.used().negated(), Money::plus);
        }
        List<JournalLine> lines = new ArrayList<>();
        debits.forEach((account, amount) -> {
            if (amount.isPositive()) {
                lines.add(JournalLine.debit(new AccountId(account), amount));
            } else if (amount.isNegative()) {
                lines.add(JournalLine.credit(new AccountId(account), amount.negated()));
            }
        });
        return lines.isEmpty() ? Optional.empty() : Optional.of(new JournalEntry(ledgerDate, text, lines));
    }
}
