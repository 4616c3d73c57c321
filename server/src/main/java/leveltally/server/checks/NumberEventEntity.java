package leveltally.server.checks;

import jakarta.persistence.*;
import java.time.Instant;
import java.time.LocalDate;
import leveltally.core.checks.NumberState;

/** One step in the life of a number; written once. */
@Entity
@Table(name = "number_event")
class NumberEventEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long checkNumberId;
    Instant at;
    LocalDate businessDate;
    long personId;

    @Enumerated(EnumType.STRING)
    NumberState toState;

    String why;
    int step;
}
