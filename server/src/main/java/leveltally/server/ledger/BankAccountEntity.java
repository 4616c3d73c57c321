package leveltally.server.ledger;

import jakarta.persistence.*;
import java.time.LocalDate;
import java.time.LocalTime;
import org.hibernate.annotations.DynamicUpdate;
import org.jspecify.annotations.Nullable;

/** A bank account payments leave from. */
@Entity
@DynamicUpdate
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
    boolean positivePay;

    @Nullable
    Long layoutId;

    /** Takes the place of that one from a day on. */
    @Nullable
    Long nextLayoutId;

    @Nullable
    LocalDate nextLayoutFrom;

    long nextFileSerial;
    long nextTrace = 1;
    int position;

    long floorMinor;
    long smallestMinor;

    @Nullable
    LocalDate thisRun;

    @Nullable
    LocalDate nextRun;

    @Nullable
    LocalDate closedOn;

    /** Until when its bank is told what to return; null where it asks for nothing. */
    @Nullable
    LocalTime decisionHour;

    @Version
    long version;
}
