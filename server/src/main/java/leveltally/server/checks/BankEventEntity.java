package leveltally.server.checks;

import jakarta.persistence.*;
import java.time.LocalDate;
import org.hibernate.annotations.DynamicUpdate;
import org.jspecify.annotations.Nullable;

/** What the bank must hear of a check (law L5): waiting, in one file, or closed. */
@Entity
@DynamicUpdate
@Table(name = "bank_event")
class BankEventEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long bankAccountId;
    long checkNumberId;
    long batchId;
    String kind;
    String currency;
    long amountMinor;
    LocalDate eventDate;
    String payee;

    @Nullable
    Long fileId;

    @Nullable
    String neverReported;

    @Version
    long version;
}
