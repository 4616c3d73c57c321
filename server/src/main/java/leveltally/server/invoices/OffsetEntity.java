package leveltally.server.invoices;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.time.LocalDate;
import org.hibernate.annotations.DynamicUpdate;
import org.jspecify.annotations.Nullable;

/** Invoices settled against credits to exactly zero, with no payment. */
@Entity
@DynamicUpdate
@Table(name = "credit_offset")
class OffsetEntity {
    @Id
    Long id;

    long vendorId;
    String reference;
    String currency;
    long amountMinor;
    LocalDate ledgerDate;

    @Nullable
    Long entryId;

    Instant madeAt;
    long madeBy;

    @Nullable
    Instant undoneAt;

    @Nullable
    Long undoneBy;

    @Version
    long version;
}
