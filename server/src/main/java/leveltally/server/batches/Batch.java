package leveltally.server.batches;

import java.time.Instant;
import java.time.LocalDate;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Purpose;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.people.PersonId;
import leveltally.core.vendors.PaymentMethod;
import org.jspecify.annotations.Nullable;

/** A batch as other capabilities see it. */
public record Batch(
        BatchId id,
        String name,
        String note,
        Purpose purpose,
        BankAccountId account,
        WayId way,
        PaymentMethod method,
        LocalDate checkDate,
        LocalDate ledgerDate,
        @Nullable LocalDate nextRun,
        BatchState state,
        int approvalRound,
        PersonId preparedBy,
        @Nullable Instant sentAt,
        @Nullable String sentBackReason,
        long version) {}
