package leveltally.server.ledger;

import jakarta.persistence.*;
import java.time.LocalDate;
import leveltally.core.vendors.PaymentMethod;
import org.jspecify.annotations.Nullable;

/** A bank account payments leave from, with the row its check numbers come from. */
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

    @Enumerated(EnumType.STRING)
    PaymentMethod method;

    String stock;
    String routingNumber;
    String accountNumberSealed;
    String micrPattern;
    String currencyWord;
    String validity;
    long cashAccountId;
    long discountAccountId;
    long firstNumber;
    long nextNumber;
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
