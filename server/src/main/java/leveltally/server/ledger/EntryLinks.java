package leveltally.server.ledger;

import org.jspecify.annotations.Nullable;

/** What an entry belongs to; every part may be absent. */
public record EntryLinks(
        @Nullable Long batch,
        @Nullable Long payment,
        @Nullable Long invoice,
        @Nullable Long reverses) {
    public static final EntryLinks NONE = new EntryLinks(null, null, null, null);

    public static EntryLinks ofInvoice(long invoice) {
        return new EntryLinks(null, null, invoice, null);
    }

    public static EntryLinks ofPayment(long batch, long payment) {
        return new EntryLinks(batch, payment, null, null);
    }

    public static EntryLinks ofVoid(long batch, long payment, long reverses) {
        return new EntryLinks(batch, payment, null, reverses);
    }
}
