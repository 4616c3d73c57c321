package leveltally.server.printing;

import jakarta.persistence.*;
import java.time.Instant;
import leveltally.core.printing.Answer;
import org.hibernate.annotations.DynamicUpdate;
import org.jspecify.annotations.Nullable;

/** One rendering of one check, and what came of it. */
@Entity
@DynamicUpdate
@Table(name = "document")
class DocumentEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long runId;
    long checkNumberId;
    long paymentId;
    int position;

    @Enumerated(EnumType.STRING)
    DocumentKind kind;

    int serial;
    String currency;
    long amountMinor;
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
