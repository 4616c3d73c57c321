package leveltally.server.printing;

import jakarta.persistence.*;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** One person's exclusive, expiring use of an account's numbers for printing. */
@Entity
@Table(name = "turn")
class TurnEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long bankAccountId;
    long serial;
    long batchId;
    long personId;
    Instant startedAt;
    Instant lastDeedAt;

    @Nullable
    Instant endedAt;

    @Nullable
    String endedHow;

    @Version
    long version;
}
