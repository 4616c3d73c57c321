package leveltally.server.company;

import jakarta.persistence.*;
import org.jspecify.annotations.Nullable;

/** The company we pay for; there is one. */
@Entity
@Table(name = "company")
class CompanyEntity {
    static final long ONLY = 1;

    @Id
    Long id = ONLY;

    String name;
    String address;
    int graceDays;
    int staleDays;

    @Nullable
    String zone;

    int firstMonth;
    boolean oneTimeByTwo;

    @Nullable
    Long logoId;

    @Version
    long version;
}
