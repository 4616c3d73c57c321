package leveltally.core.terms;

import java.math.BigDecimal;
import java.math.RoundingMode;
import leveltally.core.Refusal;
import leveltally.core.money.Money;

/**
 * What paying some cash on an open invoice settles.
 *
 * @param cash what leaves the bank
 * @param discount what is earned with it
 */
public record PartPayment(Money cash, Money discount) {

    /** What it takes off the open amount. */
    public Money settled() {
        return cash.plus(discount);
    }

    /** Pays all of it: the open amount less the living discount. */
    public static PartPayment inFull(Money open, Money livingDiscount) {
        return new PartPayment(open.minus(livingDiscount), livingDiscount);
    }

    /**
     * Pays {@code cash} on an invoice. Cash goes to the discountable part first, until its net is reached; the rest is
     * at par. A lapsed discount is passed in as zero.
     *
     * @throws Refusal when the cash is not positive or more than the net
     */
    public static PartPayment of(
            Money cash, Money open, Money livingDiscount, Money discountableLeft, BigDecimal rate) {
        Money net = open.minus(livingDiscount);
        if (!cash.isPositive()) {
            throw Refusal.invalidField(
                    "amount-not-positive",
                    "cash",
                    "A payment must be above zero. To pay nothing, take the invoice out.");
        }
        if (cash.compareTo(net) > 0) {
            throw Refusal.invalidField(
                    "amount-over-net",
                    "cash",
                    cash + " is more than the " + net + " that settles this invoice. Pay " + net
                            + " to settle it all.");
        }
        if (cash.equals(net)) {
            return inFull(open, livingDiscount);
        }
        if (livingDiscount.isZero()) {
            return new PartPayment(cash, livingDiscount);
        }
        Money discountableNet = discountableLeft.minus(livingDiscount);
        if (cash.compareTo(discountableNet) >= 0) {
            return new PartPayment(cash, livingDiscount);
        }
        Money gross = cash.dividedBy(BigDecimal.ONE.subtract(rate), RoundingMode.HALF_UP);
        return new PartPayment(cash, gross.minus(cash).min(livingDiscount));
    }
}
