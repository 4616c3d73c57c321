package leveltally.core.invoices;

import leveltally.core.money.Money;

/**
 * What one settlement row took off an invoice or credit, as long as no other row undid it.
 *
 * @param of what kind of document the item is
 * @param by what took it off
 * @param amount more than zero
 */
public record Settled(SettlementId id, InvoiceId item, InvoiceKind of, SettlementKind by, Money amount) {
    public Settled {
        if (!amount.isPositive()) {
            throw new IllegalArgumentException("a settlement of " + amount + " takes nothing off");
        }
    }
}
