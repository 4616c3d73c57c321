package leveltally.core.ledger;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** A balanced entry (law L1): it cannot be built with debits ≠ credits in any currency. */
public record JournalEntry(LocalDate ledgerDate, String text, List<JournalLine> lines) {
    public JournalEntry {
        lines = List.copyOf(lines);
        if (lines.isEmpty()) {
            throw new IllegalArgumentException("journal entry “" + text + "” has no lines");
        }
        Map<Currency, Long> balance = new HashMap<>();
        for (JournalLine line : lines) {
            long signed = line.side() == JournalLine.Side.DEBIT
                    ? line.amount().minor()
                    : -line.amount().minor();
            balance.merge(line.amount().currency(), signed, Math::addExact);
        }
        balance.forEach((currency, difference) -> {
            if (difference != 0) {
                throw new IllegalArgumentException("journal entry “" + text + "” is off by " + Math.abs(difference)
                        + " minor units of " + currency);
            }
        });
    }

    /** The same accounts with the sides exchanged, debits first. */
    public JournalEntry reversed(LocalDate on, String why) {
        List<JournalLine> turned = new ArrayList<>();
        for (JournalLine line : lines) {
            turned.add(new JournalLine(line.account(), line.side().opposite(), line.amount()));
        }
        turned.sort(Comparator.comparing(JournalLine::side));
        return new JournalEntry(on, why, turned);
    }
}
