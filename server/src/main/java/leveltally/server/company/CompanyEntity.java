package leveltally.server.company;

import jakarta.persistence.*;

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

    @Version
    long version;
}
