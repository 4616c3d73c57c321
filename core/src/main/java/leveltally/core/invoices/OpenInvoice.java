package leveltally.core.invoices;

import java.math.BigDecimal;
import java.time.LocalDate;
import leveltally.core.money.Money;
import leveltally.core.terms.Discount;
import leveltally.core.terms.PartPayment;
import org.jspecify.annotations.Nullable;

/**
 * An invoice as it is owed now.
 *
 * @param reference the vendor's own reference
 * @param amount what it was for; {@code open} what is still owed, between 0 and amount
 * @param discount what can still be earned on it
 * @param days from which ledger dates on it can be paid
 */
public record OpenInvoice(
        InvoiceId id,
        String reference,
        LocalDate invoiceDate,
        LocalDate dueDate,
        LedgerDays days,
        Money amount,
        Money open,
        Discount discount) {

    public OpenInvoice {
        if (open.isNegative() || open.compareTo(amount) > 0) {
            throw new IllegalArgumentException("invoice " + id.value() + ": open " + open + " outside 0 to " + amount);
        }
    }

    /** True when as much as is open can be settled with this ledger date (law L2). */
    public boolean isOpenOn(LocalDate ledgerDate) {
        return days.reach(ledgerDate);
    }

    /** What paying it in full on {@code checkDate} takes and earns. */
    public PartPayment payInFull(LocalDate checkDate, int graceDays) {
        return PartPayment.inFull(open, livingDiscount(checkDate, graceDays));
    }

    /** What paying {@code cash} of it on {@code checkDate} takes and earns; null pays all. */
    public PartPayment pay(@Nullable Money cash, LocalDate checkDate, int graceDays) {
        if (cash == null) {
            return payInFull(checkDate, graceDays);
        }
        BigDecimal rate = discount.rate();
        return PartPayment.of(cash, open, livingDiscount(checkDate, graceDays), discount.discountableLeft(), rate);
    }

    /** As it is owed once a credit settled part of it at par; the credit lowers the discountable part first. */
    public OpenInvoice lessCredit(Money credit) {
        return credit.isZero()
                ? this
                : new OpenInvoice(
                        id,
                        reference,
                        invoiceDate,
                        dueDate,
                        days,
                        amount,
                        open.minus(credit),
                        discount.lessCredit(credit));
    }

    private Money livingDiscount(LocalDate checkDate, int graceDays) {
        return discount.livesOn(checkDate, graceDays) ? discount.left() : Money.zero(open.currency());
    }
}
