package leveltally.server.ledger;

import jakarta.persistence.*;

/** A month of the ledger. */
@Entity
@Table(name = "period")
class PeriodEntity {
    @Id
    String month;

    boolean locked;

    boolean closing;

    @Version
    long version;
}
