package leveltally.server.checks;

import jakarta.persistence.*;
import java.time.Instant;
import java.time.LocalDate;
import org.hibernate.annotations.DynamicUpdate;
import org.jspecify.annotations.Nullable;

/** A claim that took a number; what it posts and undoes hangs on it. */
@Entity
@DynamicUpdate
@Table(name = "payment")
class PaymentEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long batchId;
    long claimId;
    long bankAccountId;
    long vendorId;
    String payee;
    String currency;
    long amountMinor;
    LocalDate checkDate;
    LocalDate ledgerDate;

    @Nullable
    Long postedEntryId;

    @Nullable
    Long voidEntryId;

    /** Taken out of its batch before posting; null when it was not. */
    @Nullable
    Instant takenOutAt;

    @Nullable
    Long takenOutBy;

    @Nullable
    String takenOutWhy;

    @Version
    long version;
}
