package leveltally.server.approval;

import jakarta.persistence.*;
import java.time.Instant;

/** One person's answer to one step of one round; written once. */
@Entity
@Table(name = "approval")
class ApprovalEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long batchId;
    int round;
    int step;
    long personId;

    @Enumerated(EnumType.STRING)
    Outcome outcome;

    String reason;
    Instant at;

    /** What was answered. */
    enum Outcome {
        APPROVED,
        SENT_BACK
    }
}
