package leveltally.core.invoices;

import java.time.LocalDate;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * A credit memo as it can be used now.
 *
 * @param days from which ledger dates on it can be used
 * @param open what is left of it, between 0 and its amount
 * @param usableFrom it is not usable before this day; null for at once
 */
public record OpenCredit(
        InvoiceId id,
        String reference,
        LocalDate date,
        LedgerDays days,
        Money open,
        @Nullable LocalDate usableFrom) {

    public OpenCredit {
        if (open.isNegative()) {
            throw new IllegalArgumentException("credit " + id.value() + ": open " + open + " is below zero");
        }
    }
}
