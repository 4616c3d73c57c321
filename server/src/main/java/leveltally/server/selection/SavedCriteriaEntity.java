package leveltally.server.selection;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.Id;
import jakarta.persistence.SequenceGenerator;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** A sentence kept under a name, with what came of its last run. */
@Entity
@Table(name = "saved_criteria")
class SavedCriteriaEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    String name;
    long personId;
    boolean shared;

    @org.hibernate.annotations.JdbcTypeCode(org.hibernate.type.SqlTypes.LONG32VARCHAR)
    String content;

    @Nullable
    Long lastBatchId;

    @Nullable
    Instant lastRunAt;

    @Nullable
    String lastOutcome;

    @Version
    long version;
}
