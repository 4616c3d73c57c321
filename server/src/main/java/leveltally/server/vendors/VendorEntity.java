package leveltally.server.vendors;

import jakarta.persistence.*;
import java.math.BigDecimal;
import leveltally.core.vendors.PaymentMethod;
import org.jspecify.annotations.Nullable;

/** Whom the company owes. */
@Entity
@Table(name = "vendor")
class VendorEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    String number;
    String name;
    String vendorGroup;
    int priority;

    @Enumerated(EnumType.STRING)
    PaymentMethod method;

    String currency;

    @Enumerated(EnumType.STRING)
    leveltally.core.terms.Terms.Rule termsRule;

    int termsDays;

    @Nullable
    Integer termsCutOffDay;

    @Column(precision = 7, scale = 5)
    BigDecimal discountRate;

    int discountDays;

    @Nullable
    String holdReason;

    boolean oneTime;

    @Version
    long version;
}
