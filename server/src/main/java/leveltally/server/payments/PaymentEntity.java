package leveltally.server.payments;

import jakarta.persistence.*;
import java.time.LocalDate;
import leveltally.core.payments.PaymentState;
import leveltally.core.vendors.Advice;
import org.jspecify.annotations.Nullable;

/** A claim on its way out of the house; what it posts and undoes hangs on it. */
@Entity
@Table(name = "payment")
class PaymentEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    @Column(updatable = false)
    long batchId;

    @Column(updatable = false)
    long claimId;

    @Column(updatable = false)
    long bankAccountId;

    @Column(updatable = false)
    long vendorId;

    @Column(updatable = false)
    String payee;

    @Column(updatable = false)
    String currency;

    @Column(updatable = false)
    long amountMinor;

    @Column(updatable = false)
    LocalDate checkDate;

    /** How the payee learns what it is for; as the vendor wished when it was made. */
    @Column(updatable = false)
    @Enumerated(EnumType.STRING)
    Advice advice;

    @Column(updatable = false)
    LocalDate ledgerDate;

    @Enumerated(EnumType.STRING)
    PaymentState state;

    /** The business date of its last step. */
    LocalDate stateDate;

    String stateWhy;
    int steps;

    @Nullable
    Long postedEntryId;

    @Nullable
    Long undoneEntryId;

    /** The payment it was made instead of. */
    @Column(updatable = false)
    @Nullable
    Long replacesId;

    /** The year it is reported in; null where that is the year of its check date. */
    @Column(updatable = false)
    @Nullable
    Integer reportedYear;

    @Version
    long version;
}
