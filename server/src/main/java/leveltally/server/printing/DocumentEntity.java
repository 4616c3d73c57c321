package leveltally.server.printing;

import jakarta.persistence.*;
import java.time.Instant;
import leveltally.core.printing.Answer;
import org.jspecify.annotations.Nullable;

/** One rendering of one check, and what came of it. */
@Entity
@Table(name = "document")
class DocumentEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    @Column(updatable = false)
    long runId;

    long checkNumberId;

    @Column(updatable = false)
    long paymentId;

    @Column(updatable = false)
    int position;

    @Column(updatable = false)
    @Enumerated(EnumType.STRING)
    DocumentKind kind;

    @Column(updatable = false)
    int serial;

    @Column(updatable = false)
    String currency;

    @Column(updatable = false)
    long amountMinor;

    @Column(updatable = false)
    int pages;

    @Enumerated(EnumType.STRING)
    @Nullable
    Answer answer;

    String answerWhy;

    @Nullable
    Instant answeredAt;

    @Nullable
    Long answeredBy;

    @Version
    long version;
}
