package leveltally.server.outside;

import java.sql.ResultSet;
import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.Collection;
import java.util.Currency;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.outside.CardLines;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Statements of card issuers, which are invoices, matched line by line to the payments that were made by card. */
@Service
public class CardStatements {
    private final JdbcClient jdbc;
    private final JdbcTemplate plain;
    private final AuditTrail audit;

    CardStatements(JdbcClient jdbc, JdbcTemplate plain, AuditTrail audit) {
        this.jdbc = jdbc;
        this.plain = plain;
        this.audit = audit;
    }

    /**
     * The statement a payment stands on.
     *
     * @param settled something of it is paid
     */
    public record On(InvoiceId invoice, String reference, boolean settled) {}

    /** The statements these payments stand on; those on none are missing. */
    @Transactional(readOnly = true)
    public Map<PaymentId, On> of(Collection<PaymentId> payments) {
        Map<PaymentId, On> found = new HashMap<>();
        if (!payments.isEmpty()) {
            jdbc.sql(
                            "SELECT m.payment_id, i.id, i.reference, i.open_minor < i.amount_minor AS settled FROM card_match m"
                                    + " JOIN invoice i ON i.id = m.invoice_id WHERE m.payment_id IN (:payments)")
                    .param("payments", payments.stream().map(PaymentId::value).toList())
                    .query((ResultSet r) -> {
                        found.put(
                                new PaymentId(r.getLong("payment_id")),
                                new On(
                                        new InvoiceId(r.getLong("id")),
                                        r.getString("reference"),
                                        r.getBoolean("settled")));
                    });
        }
        return found;
    }

    /** The deed that undoes payments takes them off their statements. */
    @Transactional
    public void lose(Collection<PaymentId> payments) {
        if (!payments.isEmpty()) {
            jdbc.sql("DELETE FROM card_match WHERE payment_id IN (:payments)")
                    .param("payments", payments.stream().map(PaymentId::value).toList())
                    .update();
        }
    }

    /** A payment that stands, or could stand, on a statement. */
    record CardPayment(
            long payment, String number, String payee, LocalDate paidOn, MoneyView amount, boolean matched) {}

    /**
     * A statement beside the payments by its card.
     *
     * @param card how the card is called
     * @param billed what the statement bills for what is owed to the issuer
     * @param matched what the payments on it come to; {@code rest} what is billed and matched to nothing
     * @param level whether both agree
     * @param settled something of it is paid, so what stands on it stays
     */
    record StatementView(
            String card,
            MoneyView billed,
            MoneyView matched,
            MoneyView rest,
            boolean level,
            boolean settled,
            List<CardPayment> payments) {}

    private record Head(long owed, String card, String currency, LocalDate date, long billedMinor, boolean settled) {}

    private @Nullable Head head(InvoiceId invoice) {
        return jdbc.sql("""
                        SELECT w.owed_account_id AS owed, GROUP_CONCAT(DISTINCT w.name ORDER BY w.name SEPARATOR ', ') AS card,
                          i.currency, i.invoice_date AS date, i.open_minor < i.amount_minor AS settled,
                          (SELECT COALESCE(SUM(l.amount_minor), 0) FROM invoice_line l
                            WHERE l.invoice_id = i.id AND l.account_id = w.owed_account_id) AS billed_minor
                        FROM invoice i JOIN way_to_pay w ON w.issuer_id = i.vendor_id
                        JOIN bank_account a ON a.id = w.bank_account_id AND a.currency = i.currency
                        WHERE i.id = :invoice AND i.kind = 'INVOICE' AND i.cancelled_on IS NULL
                        GROUP BY w.owed_account_id, i.id ORDER BY billed_minor DESC LIMIT 1
                        """)
                .param("invoice", invoice.value())
                .query(Head.class)
                .optional()
                .orElse(null);
    }

    /** The statement with the payments on it, and those that stand on none yet; null for an invoice of anybody else. */
    @Transactional(readOnly = true)
    @Nullable
    StatementView view(Actor by, InvoiceId invoice) {
        by.mayDo(Deed.READ);
        Head head = head(invoice);
        if (head == null) {
            return null;
        }
        List<CardPayment> payments = jdbc.sql("""
                        SELECT p.id AS payment, n.number, p.payee, p.check_date, p.amount_minor, p.currency,
                          m.invoice_id IS NOT NULL AS matched
                        FROM way_to_pay w JOIN outside_number n ON n.way_id = w.id JOIN payment p ON p.id = n.payment_id
                        LEFT JOIN card_match m ON m.payment_id = p.id
                        WHERE w.owed_account_id = :owed AND w.issuer_id = (SELECT vendor_id FROM invoice WHERE id = :invoice)
                          AND p.currency = :currency AND p.posted_entry_id IS NOT NULL AND p.undone_entry_id IS NULL
                          AND (m.invoice_id = :invoice OR m.invoice_id IS NULL)
                        ORDER BY m.invoice_id IS NULL, p.check_date, p.id LIMIT 2000
                        """)
                .param("owed", head.owed())
                .param("invoice", invoice.value())
                .param("currency", head.currency())
                .query((r, n) -> new CardPayment(
                        r.getLong("payment"),
                        r.getString("number"),
                        r.getString("payee"),
                        r.getObject("check_date", LocalDate.class),
                        MoneyView.of(r.getLong("amount_minor"), r.getString("currency")),
                        r.getBoolean("matched")))
                .list();
        long matched = matchedMinor(invoice);
        return new StatementView(
                head.card(),
                MoneyView.of(head.billedMinor(), head.currency()),
                MoneyView.of(matched, head.currency()),
                MoneyView.of(head.billedMinor() - matched, head.currency()),
                matched == head.billedMinor(),
                head.settled(),
                payments);
    }

    /** The lines of a statement as they were copied from it, against what could stand on it; nothing is kept by asking. */
    @Transactional(readOnly = true)
    CardLines.Read read(Actor by, InvoiceId invoice, String text) {
        StatementView view = view(by, invoice);
        if (view == null) {
            throw Refusal.notFound("no-statement", "This is no statement of a card's issuer.");
        }
        Currency currency = Currency.getInstance(view.billed().currency());
        return CardLines.read(
                text,
                currency,
                view.payments().stream()
                        .map(one -> new CardLines.Payment(
                                new PaymentId(one.payment()),
                                one.number(),
                                Money.parse(one.amount().text(), currency)))
                        .toList());
    }

    private long matchedMinor(InvoiceId invoice) {
        return jdbc.sql(
                        "SELECT COALESCE(SUM(p.amount_minor), 0) FROM card_match m JOIN payment p ON p.id = m.payment_id"
                                + " WHERE m.invoice_id = ?")
                .param(invoice.value())
                .query(Long.class)
                .single();
    }

    /**
     * Says which payments stand on a statement; those it had and that are not named are taken off it.
     *
     * @throws Refusal when they come to more than the statement bills, or something of it is paid
     */
    @Transactional
    public void match(Actor by, InvoiceId invoice, Set<PaymentId> wanted) {
        by.mayDo(Deed.RECORD_OUTSIDE);
        // whoever matches or pays this statement waits here
        jdbc.sql("SELECT id FROM invoice WHERE id = ? FOR UPDATE")
                .param(invoice.value())
                .query(Long.class)
                .optional();
        Head head = head(invoice);
        if (head == null) {
            throw Refusal.notFound(
                    "no-statement",
                    "This is no statement of a card's issuer. Enter it as an invoice of the issuer, on the account of what is"
                            + " owed to it.");
        }
        if (head.settled()) {
            throw Refusal.conflict(
                    "statement-settled", "Something of this statement is paid already, so what stands on it stays.");
        }
        Set<Long> before = new HashSet<>(jdbc.sql("SELECT payment_id FROM card_match WHERE invoice_id = ?")
                .param(invoice.value())
                .query(Long.class)
                .list());
        Set<Long> after = new HashSet<>();
        wanted.forEach(id -> after.add(id.value()));
        List<PaymentId> gone = before.stream()
                .filter(id -> !after.contains(id))
                .map(PaymentId::new)
                .toList();
        List<Long> come = after.stream().filter(id -> !before.contains(id)).toList();
        lose(gone);
        try {
            plain.batchUpdate(
                    "INSERT INTO card_match (payment_id, invoice_id, matched_at, matched_by) VALUES (?, ?, ?, ?)",
                    come.stream()
                            .map(id -> new Object[] {
                                id,
                                invoice.value(),
                                Timestamp.from(by.now()),
                                by.person().value()
                            })
                            .toList());
        } catch (DuplicateKeyException meanwhile) {
            throw Refusal.conflict(
                    "matched-meanwhile", "One of these stands on another statement by now. Look at them again.");
        }
        long matched = matchedMinor(invoice);
        if (matched > head.billedMinor()) {
            throw Refusal.invalid(
                    "more-than-billed",
                    "These payments come to " + Money.ofMinor(matched, head.currency()) + ", and the statement bills "
                            + Money.ofMinor(head.billedMinor(), head.currency())
                            + " on the account of what is owed to the issuer. Take one off, or look at its lines.");
        }
        if (!gone.isEmpty() || !come.isEmpty()) {
            audit.record(
                    by,
                    "match card payments",
                    "invoice " + invoice.value(),
                    Map.of("matched", come.size(), "taken off", gone.size()));
        }
    }
}
