package leveltally.server.checks;

import jakarta.persistence.*;
import java.time.LocalDate;
import leveltally.core.checks.NumberState;
import org.jspecify.annotations.Nullable;

/** One number of one series; it exists once and is never deleted (law L3). */
@Entity
@Table(name = "check_number")
class CheckNumberEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    @Column(updatable = false)
    long seriesId;

    @Column(updatable = false)
    long number;

    @Enumerated(EnumType.STRING)
    NumberState state;

    @Column(updatable = false)
    String origin;

    @Nullable
    Long paymentId;

    String explanation;
    LocalDate stateDate;
    int steps;

    @Version
    long version;
}
