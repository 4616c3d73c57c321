package leveltally.server.ledger;

import jakarta.persistence.*;
import java.time.Instant;
import org.hibernate.annotations.DynamicUpdate;
import org.jspecify.annotations.Nullable;

/** One lock of a period, and its end. */
@Entity
@DynamicUpdate
@Table(name = "period_lock")
class PeriodLockEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    String month;
    Instant lockedAt;
    long lockedBy;

    @Nullable
    Instant unlockedAt;

    @Nullable
    Long unlockedBy;

    @Nullable
    String unlockReason;

    @Nullable
    Long lastEntryId;

    /** how many settlements lay in the month when it was locked */
    int settlements;
}
