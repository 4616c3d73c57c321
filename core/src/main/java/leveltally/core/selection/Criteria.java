package leveltally.core.selection;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Currency;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/**
 * What a batch asks for: everything due on or before {@code dueBy}, or losing its discount before {@code nextRun}.
 *
 * @param vendor only this vendor; null for all
 * @param nextRun the check date planned for the following batch; null leaves discounts out of it
 */
public record Criteria(
        Currency currency,
        PaymentMethod method,
        LocalDate checkDate,
        LocalDate ledgerDate,
        LocalDate dueBy,
        @Nullable LocalDate nextRun,
        @Nullable VendorId vendor,
        int graceDays) {

    public Criteria {
        if (nextRun != null && !nextRun.isAfter(checkDate)) {
            throw Refusal.invalidField(
                    "next-run-not-later",
                    "nextRun",
                    "The next run, " + Dates.inWords(nextRun) + ", must be after the check date, "
                            + Dates.inWords(checkDate) + ". Choose a later day.");
        }
    }

    /** The dates, joined by “or”. */
    public boolean asksFor(OpenInvoice invoice) {
        return !invoice.dueDate().isAfter(dueBy) || lostIfItWaits(invoice);
    }

    public boolean lostIfItWaits(OpenInvoice invoice) {
        return nextRun != null && invoice.discount().lostIfItWaits(checkDate, nextRun, graceDays);
    }

    /** True when the invoice reached the ledger in a period after the one this batch is paid in. */
    boolean enteredLater(OpenInvoice invoice) {
        return YearMonth.from(invoice.ledgerDate()).isAfter(YearMonth.from(ledgerDate));
    }
}
