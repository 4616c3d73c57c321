package leveltally.server.batches;

import jakarta.persistence.*;
import java.time.LocalDate;
import leveltally.core.batches.ClaimLine;
import org.jspecify.annotations.Nullable;

/** What a claim pays on one thing: an invoice or credit, or accounts it names itself. */
@Entity
@Table(name = "claim_line")
class ClaimLineEntity {
    @Id
    Long id;

    long claimId;

    @Enumerated(EnumType.STRING)
    ClaimLine.Kind kind;

    @Nullable
    Long invoiceId;

    String reference;

    @Nullable
    LocalDate invoiceDate;

    String currency;
    long grossMinor;
    long discountMinor;
    long creditMinor;
    long cashMinor;
    boolean part;

    /** The claim of the payment that is replaced, whose line this keeps. */
    @Nullable
    @Column(name = "kept_of_claim_id")
    Long keptOf;

    /** The cash somebody typed; null pays all. */
    @Nullable
    Long typedMinor;

    /** What is paid ahead is matched with no invoice before; null for at once. */
    @Nullable
    LocalDate usableFrom;

    boolean byHand;
    boolean hidden;
    boolean ownCheck;

    @Version
    long version;
}
