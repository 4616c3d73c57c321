package leveltally.server.selection;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Collection;
import java.util.Currency;
import java.util.List;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import leveltally.core.selection.Candidate;
import leveltally.core.selection.Criteria;
import leveltally.core.terms.Discount;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads candidates: one statement whatever their number, and cost that follows what qualifies. */
@Component
public class CandidateRows {
    private static final String COLUMNS = """
            SELECT i.id, i.reference, i.invoice_date, i.due_date, i.ledger_date, i.currency, i.amount_minor,
              i.open_minor, i.discountable_minor, i.discount_rate, i.discount_date, i.discount_taken_minor,
              i.hold_reason, i.remit_to_id, v.id AS vendor_id, v.name, v.method, v.hold_reason AS vendor_hold,
              b.name AS batch_name
            FROM invoice i
            JOIN vendor v ON v.id = i.vendor_id
            LEFT JOIN reservation r ON r.invoice_id = i.id
            LEFT JOIN batch b ON b.id = r.batch_id
            """;

    private final JdbcClient jdbc;

    CandidateRows(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Open invoices that pass the dates of the criteria, earliest due first. */
    @Transactional(readOnly = true)
    public List<Candidate> askedFor(Criteria criteria) {
        LocalDate discountFrom = criteria.checkDate().minusDays(criteria.graceDays());
        LocalDate discountBefore =
                criteria.nextRun() == null ? discountFrom : criteria.nextRun().minusDays(criteria.graceDays());
        Long vendor = criteria.vendor() == null ? null : criteria.vendor().value();
        return jdbc
                .sql(COLUMNS + """
                        WHERE i.is_open = 1 AND i.kind = 'INVOICE'
                          AND (i.due_date <= :dueBy
                            OR (i.discount_date >= :discountFrom AND i.discount_date < :discountBefore))
                          AND (:vendor IS NULL OR i.vendor_id = :vendor)
                        ORDER BY i.due_date, v.name, i.id
                        """)
                .param("dueBy", criteria.dueBy())
                .param("discountFrom", discountFrom)
                .param("discountBefore", discountBefore)
                .param("vendor", vendor)
                .query((row, n) -> candidate(row))
                .list()
                .stream()
                .filter(candidate -> criteria.asksFor(candidate.invoice()))
                .toList();
    }

    /** These invoices, due or not; those unknown, settled or no invoices are missing from the answer. */
    @Transactional(readOnly = true)
    public List<Candidate> named(Collection<InvoiceId> ids) {
        if (ids.isEmpty()) {
            return List.of();
        }
        return jdbc.sql(COLUMNS
                        + " WHERE i.is_open = 1 AND i.kind = 'INVOICE' AND i.id IN (:ids) ORDER BY i.due_date, i.id")
                .param("ids", ids.stream().map(InvoiceId::value).toList())
                .query((row, n) -> candidate(row))
                .list();
    }

    /** Open invoices in no batch whose vendor or reference holds the text, at most fifty, earliest due first. */
    @Transactional(readOnly = true)
    public List<Candidate> matching(String text, Currency currency) {
        String like = "%" + text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
        return jdbc.sql(COLUMNS + """
                        WHERE i.is_open = 1 AND i.kind = 'INVOICE' AND i.currency = :currency
                          AND (v.name LIKE :like OR i.reference LIKE :like)
                        ORDER BY r.invoice_id IS NOT NULL, i.due_date, i.id LIMIT 50
                        """)
                .param("like", like)
                .param("currency", currency.getCurrencyCode())
                .query((row, n) -> candidate(row))
                .list();
    }

    private static Candidate candidate(ResultSet row) throws SQLException {
        Currency currency = Currency.getInstance(row.getString("currency"));
        Money amount = Money.ofMinor(row.getLong("amount_minor"), currency);
        Money open = Money.ofMinor(row.getLong("open_minor"), currency);
        Discount discount = Discount.after(
                Money.ofMinor(row.getLong("discountable_minor"), currency),
                row.getBigDecimal("discount_rate"),
                row.getObject("discount_date", LocalDate.class),
                amount.minus(open),
                Money.ofMinor(row.getLong("discount_taken_minor"), currency));
        OpenInvoice invoice = new OpenInvoice(
                new InvoiceId(row.getLong("id")),
                row.getString("reference"),
                row.getObject("invoice_date", LocalDate.class),
                row.getObject("due_date", LocalDate.class),
                row.getObject("ledger_date", LocalDate.class),
                amount,
                open,
                discount);
        return new Candidate(
                invoice,
                new VendorId(row.getLong("vendor_id")),
                row.getString("name"),
                row.getLong("remit_to_id"),
                PaymentMethod.valueOf(row.getString("method")),
                row.getString("hold_reason"),
                row.getString("vendor_hold"),
                row.getString("batch_name"));
    }
}
