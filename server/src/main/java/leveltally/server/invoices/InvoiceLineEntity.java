package leveltally.server.invoices;

import jakarta.persistence.*;
import org.jspecify.annotations.Nullable;

/** What an invoice was for; written once. */
@Entity
@Table(name = "invoice_line")
class InvoiceLineEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long invoiceId;
    long accountId;
    long amountMinor;

    @Nullable
    String job;
}
