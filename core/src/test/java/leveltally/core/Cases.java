package leveltally.core;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Currency;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.LedgerDays;
import leveltally.core.invoices.OpenCredit;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import leveltally.core.terms.Discount;
import org.jspecify.annotations.Nullable;

/** Values the tests of several rules share. */
public final class Cases {
    public static final Currency USD = Currency.getInstance("USD");
    public static final LocalDate CHECK_DATE = LocalDate.of(2026, 11, 13);

    private Cases() {}

    public static Money usd(String amount) {
        return Money.parse(amount, USD);
    }

    public static LocalDate day(String iso) {
        return LocalDate.parse(iso);
    }

    /** An open invoice of {@code amount}, all of it discountable at {@code percent} until {@code until}. */
    public static OpenInvoice invoice(
            long id, String amount, String dated, String due, String percent, @Nullable String until) {
        BigDecimal rate = new BigDecimal(percent).movePointLeft(2);
        Money all = usd(amount);
        Discount discount = Discount.whole(all, rate, until == null ? null : day(until));
        return new OpenInvoice(
                new InvoiceId(id), "R-" + id, day(dated), day(due), LedgerDays.from(day(dated)), all, all, discount);
    }

    /** A credit of which all is open. */
    public static OpenCredit openCredit(long id, String amount, String dated) {
        return new OpenCredit(new InvoiceId(id), "C-" + id, day(dated), LedgerDays.from(day(dated)), usd(amount), null);
    }
}
