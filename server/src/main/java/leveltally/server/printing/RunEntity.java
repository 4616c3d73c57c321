package leveltally.server.printing;

import jakarta.persistence.*;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** One run of checks, sent to the printer once. */
@Entity
@Table(name = "print_run")
class RunEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long batchId;
    long bankAccountId;
    long turnSerial;

    /** CHECK on stock, ADVICE on plain paper. */
    @Enumerated(EnumType.STRING)
    DocumentKind kind;

    Instant madeAt;
    long madeBy;

    @Nullable
    Instant sentAt;

    @Version
    long version;
}
