package leveltally.core.invoices;

import java.time.LocalDate;
import leveltally.core.Dates;

/**
 * From which ledger date on an item can be settled by all that is open on it now (law L2): not before it arrived, nor
 * before the day from which at least as much stayed open. Paid 3 Nov and brought back 12 Nov, it is open from 12 Nov on.
 *
 * @param arrived the item's own ledger date
 * @param openSince {@code arrived}, or a later day
 */
public record LedgerDays(LocalDate arrived, LocalDate openSince) {
    public LedgerDays {
        if (openSince.isBefore(arrived)) {
            throw new IllegalArgumentException("open since " + openSince + ", before it arrived on " + arrived);
        }
    }

    /** Of an item that nothing was ever brought back on. */
    public static LedgerDays from(LocalDate arrived) {
        return new LedgerDays(arrived, arrived);
    }

    public boolean reach(LocalDate ledgerDate) {
        return !ledgerDate.isBefore(openSince);
    }

    /** Which day has to be reached, and why, in words. */
    public String inWords() {
        return (openSince.equals(arrived) ? "in the ledger from " : "open again from ") + Dates.inWords(openSince);
    }
}
