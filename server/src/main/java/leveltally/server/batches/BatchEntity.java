package leveltally.server.batches;

import jakarta.persistence.*;
import java.time.Instant;
import java.time.LocalDate;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Purpose;
import leveltally.core.people.Actor;
import leveltally.core.selection.ClaimOrder;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.WayToPay;
import org.jspecify.annotations.Nullable;

/** Payments from one bank account by one method. */
@Entity
@Table(name = "batch")
class BatchEntity {
    @Id
    @GeneratedValue(generator = "batch_seq")
    @SequenceGenerator(name = "batch_seq", sequenceName = "batch_seq", allocationSize = 1)
    Long id;

    String name;
    String note;

    @Enumerated(EnumType.STRING)
    Purpose purpose;

    long bankAccountId;
    long wayId;

    @Enumerated(EnumType.STRING)
    PaymentMethod method;

    LocalDate checkDate;
    LocalDate ledgerDate;

    @Nullable
    LocalDate nextRun;

    @Enumerated(EnumType.STRING)
    BatchState state;

    int approvalRound;
    long preparedBy;
    Instant preparedAt;

    @Nullable
    Instant sentAt;

    @Nullable
    String sentBackReason;

    long changedBy;
    Instant changedAt;
    String changedWhat;

    /** The sentence that gathered it, as JSON; null where none did. */
    @org.hibernate.annotations.JdbcTypeCode(org.hibernate.type.SqlTypes.LONG32VARCHAR)
    @Nullable
    String question;

    @Enumerated(EnumType.STRING)
    ClaimOrder claimOrder;

    /** What its page called it while it was typed; null for most. */
    @Column(updatable = false)
    @Nullable
    String typedAs;

    @Version
    long version;

    /** A draft whose claims are written as they stand, by whoever makes it. */
    static BatchEntity draft(
            Actor by,
            Purpose purpose,
            String name,
            String note,
            BankAccount account,
            WayToPay way,
            LocalDate checkDate) {
        BatchEntity batch = new BatchEntity();
        batch.name = name;
        batch.note = note;
        batch.purpose = purpose;
        batch.bankAccountId = account.id().value();
        batch.wayId = way.id().value();
        batch.method = way.method();
        batch.checkDate = checkDate;
        batch.ledgerDate = checkDate;
        batch.claimOrder = ClaimOrder.PAYEE;
        batch.state = BatchState.DRAFT;
        batch.preparedBy = by.person().value();
        batch.preparedAt = by.now();
        Batches.touch(batch, by, "made it");
        return batch;
    }
}
