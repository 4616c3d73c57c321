package leveltally.server.invoices;

import jakarta.persistence.*;
import java.math.BigDecimal;
import java.time.LocalDate;
import leveltally.core.invoices.InvoiceKind;
import org.jspecify.annotations.Nullable;

/** What the company owes, or what reduces it; open amounts are moved by the database when a settlement row arrives. */
@Entity
@Table(name = "invoice")
class InvoiceEntity {
    @Id
    @GeneratedValue(generator = "invoice_seq")
    @SequenceGenerator(name = "invoice_seq", sequenceName = "invoice_seq", allocationSize = 50)
    Long id;

    @Column(updatable = false)
    long vendorId;

    @Column(updatable = false)
    long remitToId;

    @Enumerated(EnumType.STRING)
    @Column(updatable = false)
    InvoiceKind kind;

    @Column(updatable = false)
    String reference;

    @Column(updatable = false)
    LocalDate invoiceDate;

    @Column(updatable = false)
    LocalDate dueDate;

    @Column(updatable = false)
    @Nullable
    LocalDate discountDate;

    @Column(updatable = false)
    LocalDate ledgerDate;

    @Column(updatable = false)
    String currency;

    @Column(updatable = false)
    long amountMinor;

    @Column(updatable = false)
    long discountableMinor;

    @Column(updatable = false, precision = 7, scale = 5)
    BigDecimal discountRate;

    @Column(updatable = false)
    long openMinor;

    @Column(updatable = false)
    long discountTakenMinor;

    /** What neither cash nor discount settled of it; the database reckons it, and the next. */
    @Column(insertable = false, updatable = false)
    long atParMinor;

    @Column(insertable = false, updatable = false)
    LocalDate openSince;

    @Column(updatable = false)
    long payablesAccountId;

    /** A credit or prepayment cannot be used before; null for at once. */
    @Column(updatable = false)
    @Nullable
    LocalDate usableFrom;

    /** The line of a posted payment by which a prepayment was paid; null for everything else. */
    @Column(updatable = false)
    @Nullable
    Long aheadLineId;

    /** The file it was brought in with; null when it was entered by hand. */
    @Column(updatable = false)
    @Nullable
    Long importId;

    /** The document it was entered anew for; null where it corrects none. */
    @Column(updatable = false)
    @Nullable
    Long correctsId;

    boolean ownCheck;

    @Nullable
    String holdReason;

    /** Who set the hold first; null when it is not held. */
    @Nullable
    Long heldBy;

    @Version
    long version;
}
