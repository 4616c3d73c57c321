package leveltally.server.batches;

import jakarta.persistence.*;
import java.time.LocalDate;
import leveltally.core.batches.ClaimLine;

/** What a claim pays on one invoice. */
@Entity
@Table(name = "claim_line")
class ClaimLineEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long claimId;

    @Enumerated(EnumType.STRING)
    ClaimLine.Kind kind;

    long invoiceId;
    String reference;
    LocalDate invoiceDate;
    String currency;
    long grossMinor;
    long discountMinor;
    long creditMinor;
    long cashMinor;
    boolean part;

    @Version
    long version;
}
