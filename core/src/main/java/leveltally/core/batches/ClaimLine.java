package leveltally.core.batches;

import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;

/**
 * What a claim pays on one thing owed: gross − discount − credit = cash.
 *
 * @param gross what it takes off the open amount
 * @param cash what leaves the bank for it
 */
public record ClaimLine(
        Kind kind, InvoiceId invoice, String reference, Money gross, Money discount, Money credit, Money cash) {

    /** What the line pays; the last two have no screen yet. */
    public enum Kind {
        INVOICE,
        CREDIT,
        PREPAYMENT,
        DIRECT
    }

    public ClaimLine {
        if (!gross.minus(discount).minus(credit).equals(cash)) {
            throw new IllegalArgumentException(
                    "line of " + reference + ": " + gross + " − " + discount + " − " + credit + " is not " + cash);
        }
    }
}
