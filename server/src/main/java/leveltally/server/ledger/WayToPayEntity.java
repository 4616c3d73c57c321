package leveltally.server.ledger;

import jakarta.persistence.*;
import leveltally.core.vendors.PaymentMethod;

/** A way to pay of a bank account, in the order they are offered. */
@Entity
@Table(name = "way_to_pay")
class WayToPayEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long bankAccountId;
    String name;

    @Enumerated(EnumType.STRING)
    PaymentMethod method;

    int position;

    @Version
    long version;
}
