package leveltally.server.ledger;

import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/**
 * What carries payments from one bank account: its checks, its credit transfers.
 *
 * @param recordedOnly what is paid this way is made elsewhere and recorded here
 * @param card null unless it is a company card
 */
public record WayToPay(
        WayId id,
        String name,
        PaymentMethod method,
        boolean recordedOnly,
        @Nullable Card card) {
    /**
     * A company card.
     *
     * @param owed the account of what is owed to its issuer
     */
    public record Card(AccountId owed, VendorId issuer) {}
}
