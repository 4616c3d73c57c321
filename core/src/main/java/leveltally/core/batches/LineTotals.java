package leveltally.core.batches;

import java.util.Currency;
import java.util.List;
import leveltally.core.money.Money;

/** What some lines of a batch come to: settles − discount = cash, because a credit settles less than nothing. */
public record LineTotals(int count, Money settles, Money discount, Money cash) {
    public static LineTotals of(List<ClaimLine> lines, Currency currency) {
        return new LineTotals(
                lines.size(),
                Money.sum(lines.stream().map(ClaimLine::settles).toList(), currency),
                Money.sum(lines.stream().map(ClaimLine::discount).toList(), currency),
                Money.sum(lines.stream().map(ClaimLine::cash).toList(), currency));
    }
}
