package leveltally.core.terms;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * The early discount of one open invoice as it stands now.
 *
 * @param earning the document's discountable part less what credits settled of it at par
 * @param taken what was taken of the discount so far
 * @param discountableLeft the part of the open amount it is reckoned on
 * @param rate 0.02 for 2%
 * @param until the last day it lives, without grace; null for no discount
 */
public record Discount(
        Money earning,
        Money taken,
        Money discountableLeft,
        BigDecimal rate,
        @Nullable LocalDate until) {

    /** What of a document earns discount: 1,250.00 with 50.00 freight leaves 1,200.00. */
    public static Money discountable(Money amount, Money notDiscountable) {
        if (notDiscountable.isNegative() || notDiscountable.compareTo(amount) > 0) {
            throw Refusal.invalidField(
                    "not-discountable-outside",
                    "notDiscountable",
                    "The part without discount must lie between 0 and the amount, " + amount + ".");
        }
        return amount.minus(notDiscountable);
    }

    /** The full discount of a new invoice: 1,250.00 with 50.00 freight not discountable at 2% gives 24.00. */
    public static Money full(Money discountable, BigDecimal rate) {
        return discountable.times(rate, RoundingMode.HALF_UP);
    }

    /** The discount of a new invoice of which nothing is settled. */
    public static Discount whole(Money discountable, BigDecimal rate, @Nullable LocalDate until) {
        Money none = Money.zero(discountable.currency());
        return after(discountable, rate, until, none, none, none);
    }

    /**
     * What is left after earlier settlements, which lower the discountable part first.
     *
     * @param settled Σ of all settlement rows of the invoice so far
     * @param atPar those among them that neither cash nor discount settled
     * @param taken those that are discount
     */
    public static Discount after(
            Money discountable, BigDecimal rate, @Nullable LocalDate until, Money settled, Money atPar, Money taken) {
        return new Discount(
                notBelowZero(discountable.minus(atPar)), taken, notBelowZero(discountable.minus(settled)), rate, until);
    }

    private static Money notBelowZero(Money amount) {
        return amount.max(Money.zero(amount.currency()));
    }

    /**
     * What can still be taken: the document's discount less what was taken, nothing else. Only where so much was paid at par
     * that there is no room for it, it is reckoned on what is left.
     */
    public Money left() {
        Money rest = notBelowZero(full(earning, rate).minus(taken));
        return rest.compareTo(discountableLeft) < 0 ? rest : full(discountableLeft, rate);
    }

    /** What is left once a credit settled part of the invoice at par, which lowers the discountable part first. */
    public Discount lessCredit(Money credit) {
        return new Discount(
                notBelowZero(earning.minus(credit)), taken, notBelowZero(discountableLeft.minus(credit)), rate, until);
    }

    /** True while check date ≤ discount date + grace days. */
    public boolean livesOn(LocalDate checkDate, int graceDays) {
        return until != null && left().isPositive() && !checkDate.isAfter(until.plusDays(graceDays));
    }

    /** Lost if it waits ⇔ check date ≤ discount date + grace &lt; next run. */
    public boolean lostIfItWaits(LocalDate checkDate, LocalDate nextRun, int graceDays) {
        return until != null
                && livesOn(checkDate, graceDays)
                && until.plusDays(graceDays).isBefore(nextRun);
    }

    /** The day an invoice would otherwise be paid: when it is due, or at the next run where that is later. */
    public static LocalDate otherwisePaid(LocalDate dueDate, @Nullable LocalDate nextRun) {
        return nextRun == null || nextRun.isBefore(dueDate) ? dueDate : nextRun;
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
