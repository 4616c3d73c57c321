package leveltally.server.ledger;

import jakarta.persistence.*;

/** One side of an entry. */
@Entity
@Table(name = "journal_line")
class JournalLineEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long entryId;
    long accountId;
    String currency;
    long debitMinor;
    long creditMinor;
}
