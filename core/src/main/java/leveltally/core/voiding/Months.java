package leveltally.core.voiding;

import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.money.Money;

/**
 * The months that undoing concerns, account by account: what each account moved before the deed and moves after it. The months
 * of the payments are there too, so that it is seen that they stand still.
 *
 * @param lines by month, then in the order of the accounts
 */
public record Months(List<Line> lines) {
    /** What an account moves in a month, in one currency; debits are positive. */
    public record Line(YearMonth month, AccountId account, Money before, Money after) {
        public boolean moves() {
            return !before.equals(after);
        }
    }

    /** An account in a month. */
    public record Spot(YearMonth month, AccountId account, String currency) {}

    /**
     * @param moved what each account moves in each of these months as the ledger stands
     * @param undone the entries of the payments
     * @param writing the entries that undo them
     */
    public static Months of(Map<Spot, Money> moved, Collection<JournalEntry> undone, Collection<JournalEntry> writing) {
        Map<Spot, Money> by = new HashMap<>();
        writing.forEach(entry ->
                entry.lines().forEach(line -> by.merge(spot(entry, line), line.debited(), Money::plus)));
        Map<Spot, Money> seen = new TreeMap<>(Comparator.comparing(Spot::month)
                .thenComparing(spot -> spot.account().value())
                .thenComparing(Spot::currency));
        for (JournalEntry entry : undone) {
            entry.lines()
                    .forEach(line ->
                            seen.put(spot(entry, line), Money.zero(line.amount().currency())));
        }
        by.forEach((spot, amount) -> seen.put(spot, Money.zero(amount.currency())));
        List<Line> lines = new ArrayList<>();
        seen.forEach((spot, zero) -> {
            Money before = moved.getOrDefault(spot, zero);
            lines.add(new Line(spot.month(), spot.account(), before, before.plus(by.getOrDefault(spot, zero))));
        });
        return new Months(List.copyOf(lines));
    }

    private static Spot spot(JournalEntry entry, JournalLine line) {
        return new Spot(
                YearMonth.from(entry.ledgerDate()),
                line.account(),
                line.amount().currency().getCurrencyCode());
    }
}
