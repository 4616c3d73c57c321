package leveltally.server.payments;

import jakarta.persistence.*;
import java.time.LocalDate;
import leveltally.core.payments.PaymentState;
import leveltally.core.vendors.Advice;
import org.hibernate.annotations.DynamicUpdate;
import org.jspecify.annotations.Nullable;

/** A claim on its way out of the house; what it posts and undoes hangs on it. */
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

    /** How the payee learns what it is for; as the vendor wished when it was made. */
    @Enumerated(EnumType.STRING)
    Advice advice;

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
    @Nullable
    Long replacesId;

    @Version
    long version;
}
