package leveltally.core.ledger;

import java.time.YearMonth;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;

/**
 * The months the ledger has; they follow each other without a gap.
 *
 * @param first null while there is none, as is {@code last}
 */
public record OpenedMonths(
        @Nullable YearMonth first, @Nullable YearMonth last) {
    private static final int MOST_AHEAD = 24;

    /** The month that comes next, or that of today where there is none yet. */
    public YearMonth next(YearMonth today) {
        return last == null ? today : last.plusMonths(1);
    }

    /** @throws Refusal when opening it would leave a gap, or lies too far from today */
    public void mustTake(YearMonth wanted, YearMonth today) {
        if (Math.abs(ChronoUnit.MONTHS.between(today, wanted)) > MOST_AHEAD) {
            throw Refusal.invalidField(
                    "month-far",
                    "month",
                    "Open a month within two years of today. " + inWords(wanted) + " is further.");
        }
        if (first == null || last == null) {
            return;
        }
        if (!wanted.isBefore(first) && !wanted.isAfter(last)) {
            throw alreadyOpened(wanted);
        }
        Optional<YearMonth> missing = wanted.isAfter(last.plusMonths(1))
                ? Optional.of(last.plusMonths(1))
                : wanted.isBefore(first.minusMonths(1)) ? Optional.of(first.minusMonths(1)) : Optional.empty();
        missing.ifPresent(month -> {
            throw Refusal.invalidField(
                    "month-gap",
                    "month",
                    "Months follow each other without a gap. Open " + inWords(month) + " before " + inWords(wanted)
                            + ".");
        });
    }

    /** What is said to the second of two who open the same month. */
    public static Refusal alreadyOpened(YearMonth month) {
        return Refusal.conflict("month-opened", inWords(month) + " is there already. Look at the ledger again.");
    }

    private static String inWords(YearMonth month) {
        return new Period(month, false).inWords();
    }
}
