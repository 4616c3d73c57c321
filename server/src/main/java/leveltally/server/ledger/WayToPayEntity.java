package leveltally.server.ledger;

import jakarta.persistence.*;
import leveltally.core.vendors.PaymentMethod;
import org.jspecify.annotations.Nullable;

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
    boolean recordedOnly;

    /** Of a company card: the account of what is owed to its issuer. */
    @Nullable
    Long owedAccountId;

    @Nullable
    Long issuerId;

    @Version
    long version;
}
