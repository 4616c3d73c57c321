package leveltally.server.ledger;

import jakarta.persistence.*;

/** An account of the ledger. */
@Entity
@Table(name = "ledger_account")
class LedgerAccountEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    String code;
    String name;
    String kind;
}
