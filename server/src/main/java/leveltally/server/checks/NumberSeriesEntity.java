package leveltally.server.checks;

import jakarta.persistence.*;
import leveltally.core.checks.Stock;
import org.hibernate.annotations.DynamicUpdate;
import org.jspecify.annotations.Nullable;

/** The row that the numbers of a series come from. */
@Entity
@DynamicUpdate
@Table(name = "number_series")
class NumberSeriesEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long wayId;
    String prefix;

    @Enumerated(EnumType.STRING)
    Stock stock;

    long firstNumber;
    long nextNumber;

    @Nullable
    Long lastNumber;

    String micrPattern;
    String currencyWord;
    String validity;
    boolean sameNumberReprint;
    String loading = "";

    @Nullable
    Long signatureId;

    @Nullable
    Long signatureUpToMinor;

    @Nullable
    Long secondAboveMinor;

    @Nullable
    Long mostMinor;

    @Version
    long version;
}
