package leveltally.core.invoices;

import java.time.LocalDate;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.money.Money;

/**
 * What was open on an item at the end of every ledger date (law L2).
 *
 * @param arrived its own ledger date
 * @param settled Σ of its settlement rows of each ledger date; undoing counts against
 */
public record OpenHistory(String reference, LocalDate arrived, Money amount, Map<LocalDate, Money> settled) {
    public OpenHistory {
        settled = Map.copyOf(settled);
    }

    /** As much as a settlement of this ledger date may take: what stays open on that day and on every later one. */
    public Money settleableOn(LocalDate ledgerDate) {
        if (ledgerDate.isBefore(arrived)) {
            return Money.zero(amount.currency());
        }
        Money open = amount;
        Money least = null;
        TreeMap<LocalDate, Money> byDay = new TreeMap<>(settled);
        byDay.putIfAbsent(ledgerDate, Money.zero(amount.currency()));
        for (Map.Entry<LocalDate, Money> day : byDay.entrySet()) {
            open = open.minus(day.getValue());
            if (!day.getKey().isBefore(ledgerDate)) {
                least = least == null ? open : least.min(open);
            }
        }
        return least;
    }

    /** @throws Refusal when that much cannot be settled with this ledger date, naming the day from which it can */
    public void mustAllow(Money settling, LocalDate ledgerDate) {
        if (settling.compareTo(settleableOn(ledgerDate)) <= 0) {
            return;
        }
        TreeMap<LocalDate, Money> days = new TreeMap<>(settled);
        days.put(arrived, Money.zero(amount.currency()));
        String wayOut = days.keySet().stream()
                .filter(day -> day.isAfter(ledgerDate) && settling.compareTo(settleableOn(day)) <= 0)
                .findFirst()
                .map(day -> "It can be from " + Dates.inWords(day) + " on: choose that ledger date or a later one.")
                .orElse("Look at it again: it was settled elsewhere.");
        throw Refusal.invalidField(
                "not-open-then",
                "ledgerDate",
                settling + " of " + reference + " cannot be settled with the ledger date " + Dates.inWords(ledgerDate)
                        + ", because less than that is open on that day or a later one. " + wayOut);
    }
}
