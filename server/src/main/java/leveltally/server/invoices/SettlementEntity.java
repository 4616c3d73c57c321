package leveltally.server.invoices;

import jakarta.persistence.*;
import java.time.LocalDate;
import leveltally.core.invoices.SettlementKind;
import org.jspecify.annotations.Nullable;

/** What took some off an open amount, on a ledger date; written once. */
@Entity
@Table(name = "settlement")
class SettlementEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long invoiceId;

    @Enumerated(EnumType.STRING)
    SettlementKind kind;

    String currency;
    long amountMinor;
    LocalDate ledgerDate;

    @Nullable
    Long batchId;

    @Nullable
    Long paymentId;

    @Nullable
    Long offsetId;

    @Nullable
    Long entryId;

    @Nullable
    Long reversesId;
}
