package leveltally.core.batches;

import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.AccountId;
import leveltally.core.money.Money;

/** What a line of a claim debits, by how much. */
public sealed interface Debit {
    Money amount();

    /** The payables account of an invoice or credit. */
    record Payables(InvoiceId item, Money amount) implements Debit {}

    /** An account the line names itself. */
    record Account(AccountId account, Money amount) implements Debit {}
}
