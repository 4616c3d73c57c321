package leveltally.server.batches;

import jakarta.persistence.*;
import org.jspecify.annotations.Nullable;

/** One payee's payment before it has a number; payee and address freeze when it is sent. */
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

    @Nullable
    String digest;

    @Version
    long version;
}
