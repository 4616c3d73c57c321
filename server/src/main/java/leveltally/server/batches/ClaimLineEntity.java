package leveltally.server.batches;

import jakarta.persistence.*;
import java.time.LocalDate;
import leveltally.core.batches.ClaimLine;
import org.jspecify.annotations.Nullable;

/** What a claim pays on one invoice, or uses up of one credit. */
@Entity
@Table(name = "claim_line")
class ClaimLineEntity {
    @Id
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

    /** The cash somebody typed; null pays all. */
    @Nullable
    Long typedMinor;

    boolean byHand;
    boolean hidden;
    boolean ownCheck;

    @Version
    long version;
}
