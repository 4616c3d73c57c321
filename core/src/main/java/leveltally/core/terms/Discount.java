package leveltally.core.terms;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.Optional;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * The early discount of one open invoice as it stands now.
 *
 * @param left what can still be taken
 * @param discountableLeft the part of the open amount it is reckoned on
 * @param rate 0.02 for 2%
 * @param until the last day it lives, without grace; null for no discount
 */
public record Discount(
        Money left,
        Money discountableLeft,
        BigDecimal rate,
        @Nullable LocalDate until) {

    /** The full discount of a new invoice: 1,250.00 with 50.00 freight not discountable at 2% gives 24.00. */
    public static Money full(Money discountable, BigDecimal rate) {
        return discountable.times(rate, RoundingMode.HALF_UP);
    }

    /**
     * What is left after earlier settlements, which lower the discountable part first.
     *
     * @param settled Σ of all settlement rows of the invoice so far
     * @param taken Σ of its discount rows
     */
    public static Discount after(
            Money discountable, BigDecimal rate, @Nullable LocalDate until, Money settled, Money taken) {
        Money zero = Money.zero(discountable.currency());
        if (rate.signum() == 0) {
            return new Discount(zero, discountable.minus(settled).max(zero), rate, until);
        }
        Money base = discountable.minus(settled).max(zero);
        Money left = full(discountable, rate).minus(taken).min(full(base, rate)).max(zero);
        return new Discount(left, base, rate, until);
    }

    /** What is left once a credit settled part of the invoice at par, which lowers the discountable part first. */
    public Discount lessCredit(Money credit) {
        Money base = discountableLeft.minus(credit).max(Money.zero(credit.currency()));
        return new Discount(left.min(full(base, rate)), base, rate, until);
    }

    /** True while check date ≤ discount date + grace days. */
    public boolean livesOn(LocalDate checkDate, int graceDays) {
        return until != null && left.isPositive() && !checkDate.isAfter(until.plusDays(graceDays));
    }

    /** Lost if it waits ⇔ check date ≤ discount date + grace &lt; next run. */
    public boolean lostIfItWaits(LocalDate checkDate, LocalDate nextRun, int graceDays) {
        return until != null
                && livesOn(checkDate, graceDays)
                && until.plusDays(graceDays).isBefore(nextRun);
    }

    /**
     * The yearly return, in percent, of taking this discount now instead of paying {@code cash} + discount later.
     *
     * @return empty when the days between are not positive
     */
    public static Optional<BigDecimal> yearlyReturn(
            Money discount, Money cash, LocalDate checkDate, LocalDate otherwisePaid) {
        long days = checkDate.until(otherwisePaid, java.time.temporal.ChronoUnit.DAYS);
        if (days <= 0 || !cash.isPositive()) {
            return Optional.empty();
        }
        return Optional.of(BigDecimal.valueOf(discount.minor())
                .multiply(BigDecimal.valueOf(36_500))
                .divide(BigDecimal.valueOf(cash.minor()).multiply(BigDecimal.valueOf(days)), 2, RoundingMode.HALF_UP));
    }
}
