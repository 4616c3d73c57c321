package leveltally.core.ledger;

import java.util.ArrayList;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.money.Money;

/**
 * Balances at the start of a month, its movements, and the balances at its end; debits are positive.
 *
 * @param totals what was debited and credited, per currency in the order of the lines: amounts of two are never added
 */
public record TrialBalance(List<Line> lines, List<Total> totals) {
    /** What one account moved in one currency. */
    public record Line(String account, Money opening, Money debit, Money credit) {
        public Money closing() {
            return opening.plus(debit).minus(credit);
        }
    }

    public record Total(Money debit, Money credit) {}

    public static TrialBalance of(List<Line> lines) {
        Map<Currency, Total> totals = new LinkedHashMap<>();
        for (Line line : lines) {
            totals.merge(
                    line.debit().currency(),
                    new Total(line.debit(), line.credit()),
                    (a, b) -> new Total(a.debit().plus(b.debit()), a.credit().plus(b.credit())));
        }
        return new TrialBalance(List.copyOf(lines), new ArrayList<>(totals.values()));
    }
}
