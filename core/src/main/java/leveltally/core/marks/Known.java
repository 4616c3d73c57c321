package leveltally.core.marks;

import java.util.List;
import leveltally.core.money.Money;

/**
 * What is known about a payee when its payment is asked for.
 *
 * @param alike invoices of the same amounts, of this vendor or of one that shares its remit-to or bank account
 * @param ahead what was paid ahead of the invoices paid here, and is matched with nothing yet
 * @param past its payments in this currency, newest first
 * @param others its other payments that are asked for in the same batch
 * @param open its other invoices not paid here
 * @param changes what was changed about it in the last {@link leveltally.core.vendors.TwoPeople#DAYS} days
 * @param sentBack what the bank sent back of payments to the account this one goes to, newest first
 * @param limits of a payment, in this currency
 */
public record Known(
        List<KnownInvoice> alike,
        List<KnownInvoice> ahead,
        List<PastPayment> past,
        List<PastPayment> others,
        List<KnownInvoice> open,
        List<Fact.Change> changes,
        List<SentBack> sentBack,
        List<Money> limits) {
    public Known {
        alike = List.copyOf(alike);
        ahead = List.copyOf(ahead);
        past = List.copyOf(past);
        others = List.copyOf(others);
        open = List.copyOf(open);
        changes = List.copyOf(changes);
        sentBack = List.copyOf(sentBack);
        limits = List.copyOf(limits);
    }
}
