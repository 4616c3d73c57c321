package leveltally.server.ledger;

import jakarta.persistence.*;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/** A bank account payments leave from. */
@Entity
@Table(name = "bank_account")
class BankAccountEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    String name;
    String bankName;
    String currency;

    String routingNumber;
    String accountNumberSealed;
    long cashAccountId;
    long discountAccountId;
    boolean positivePay;

    @Nullable
    Long layoutId;

    long nextFileSerial;
    int position;

    long floorMinor;

    @Nullable
    LocalDate thisRun;

    @Nullable
    LocalDate nextRun;

    @Version
    long version;
}
