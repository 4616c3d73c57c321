package leveltally.server.batches;

import jakarta.persistence.*;
import leveltally.core.money.Money;
import leveltally.core.selection.ClaimOrder;
import org.jspecify.annotations.Nullable;

/** One payee's payment before it has a number; payee, address and bank details freeze when it is sent. */
@Entity
@Table(name = "claim")
class ClaimEntity {
    @Id
    Long id;

    long batchId;
    long vendorId;
    long remitToId;
    String payee;
    String vendorNumber;
    String postalCode;
    boolean apart;
    String stubNote;
    String address;
    String currency;
    long amountMinor;

    /** The bank details as they were when it was sent, sealed; null where there were none. */
    @Nullable
    String bankSealed;

    String bankKey = "";
    String bankMask = "";

    /** Where it stands in the batch; core's order reckons it. */
    String orderKey = "";

    @Nullable
    String digest;

    @Version
    long version;

    ClaimOrder.Placed placed(long firstEntry) {
        return new ClaimOrder.Placed(
                payee, vendorNumber, remitToId, Money.ofMinor(amountMinor, currency), postalCode, firstEntry);
    }
}
