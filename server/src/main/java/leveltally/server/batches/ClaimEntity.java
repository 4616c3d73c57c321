package leveltally.server.batches;

import jakarta.persistence.*;
import org.jspecify.annotations.Nullable;

/** One payee's payment before it has a number; payee and address freeze when it is sent. */
@Entity
@Table(name = "claim")
class ClaimEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long batchId;
    long vendorId;
    long remitToId;
    String payee;
    String address;
    String currency;
    long amountMinor;

    @Nullable
    String digest;

    @Version
    long version;
}
