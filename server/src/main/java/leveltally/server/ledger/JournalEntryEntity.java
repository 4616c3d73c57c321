package leveltally.server.ledger;

import jakarta.persistence.*;
import java.time.Instant;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/** A balanced entry; written once. */
@Entity
@Table(name = "journal_entry")
class JournalEntryEntity {
    @Id
    Long id;

    LocalDate ledgerDate;
    String month;

    @Enumerated(EnumType.STRING)
    EntryKind kind;

    String text;

    @Nullable
    Long batchId;

    @Nullable
    Long paymentId;

    @Nullable
    Long invoiceId;

    @Nullable
    Long reversesId;

    Instant madeAt;
    long madeBy;
}
