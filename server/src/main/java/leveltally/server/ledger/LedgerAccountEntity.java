package leveltally.server.ledger;

import jakarta.persistence.*;
import java.time.LocalDate;
import leveltally.core.ledger.AccountFacts;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountKind;
import leveltally.core.ledger.LedgerAccount;
import org.hibernate.annotations.DynamicUpdate;
import org.jspecify.annotations.Nullable;

/** An account of the ledger. */
@Entity
@DynamicUpdate
@Table(name = "ledger_account")
class LedgerAccountEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    String code;
    String name;

    @Enumerated(EnumType.STRING)
    AccountKind kind;

    @Nullable
    LocalDate closedFrom;

    @Version
    long version;

    LedgerAccount view() {
        return new LedgerAccount(new AccountId(id), new AccountFacts(code, name, kind), closedFrom);
    }
}
