package leveltally.server.marks;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.marks.Asked;
import leveltally.core.marks.Fact;
import leveltally.core.marks.Known;
import leveltally.core.marks.KnownInvoice;
import leveltally.core.marks.Mark;
import leveltally.core.marks.Marking;
import leveltally.core.marks.PastPayment;
import leveltally.core.marks.SentBack;
import leveltally.core.money.Money;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.TwoPeople;
import leveltally.core.vendors.VendorId;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads what is known about the payees of a batch, in eight statements whatever its size, and marks its payments. */
@Component
public class MarkRows {
    /** What became of an invoice {@code o}, in words. */
    private static final String WHERE_IT_IS = """
            COALESCE(
              (SELECT CONCAT('in batch “', b.name, '”') FROM reservation r JOIN batch b ON b.id = r.batch_id
                WHERE r.invoice_id = o.id),
              (SELECT CONCAT('paid by ', IF(k.check_id IS NULL, '', 'check '), k.number, ' of ',
                  DATE_FORMAT(y.check_date, '%a %e %b %Y'))
                FROM settlement s JOIN payment y ON y.id = s.payment_id AND y.undone_entry_id IS NULL
                JOIN payment_carried k ON k.payment_id = y.id AND k.number <> ''
                WHERE s.invoice_id = o.id AND s.kind = 'CASH' ORDER BY s.id DESC LIMIT 1),
              CASE WHEN o.open_minor > 0 THEN 'open' ELSE 'settled' END) AS where_it_is
            """;

    /** The kinds of lines that could be paid twice. */
    private static final List<String> COMPARED = List.of(ClaimLine.Kind.INVOICE.name(), ClaimLine.Kind.DIRECT.name());

    private final JdbcClient jdbc;

    MarkRows(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** One claim while its facts are gathered. */
    private record Claim(long id, long vendor, String payee, boolean oneTime, Money amount, LocalDate checkDate) {}

    /**
     * The marks of every claim of a batch; claims without any are missing.
     *
     * @param limits of a payment in the batch's currency
     */
    @Transactional(readOnly = true)
    public Map<ClaimId, List<Mark>> of(BatchId batch, LocalDate today, List<Money> limits) {
        Map<Long, Claim> claims = new LinkedHashMap<>();
        Map<Long, List<KnownInvoice>> paid = lines(batch, claims);
        Map<String, List<KnownInvoice>> alike = alike(batch);
        Map<String, List<KnownInvoice>> withoutInvoice = withoutInvoice(batch);
        Map<Long, List<KnownInvoice>> ahead = ahead(batch);
        Map<Long, List<PastPayment>> past = past(batch, today);
        Map<Long, List<Fact.Change>> changes = changes(batch, today);
        Map<Long, List<SentBack>> sentBack = sentBack(batch);
        Map<Long, List<KnownInvoice>> near = near(batch, limits, paid);
        Map<Long, List<Claim>> byVendor = new HashMap<>();
        claims.values()
                .forEach(claim -> byVendor.computeIfAbsent(claim.vendor(), none -> new ArrayList<>())
                        .add(claim));
        Map<ClaimId, List<Mark>> marks = new LinkedHashMap<>();
        for (Claim claim : claims.values()) {
            List<KnownInvoice> own = paid.get(claim.id());
            Asked asked = new Asked(
                    new VendorId(claim.vendor()),
                    claim.payee(),
                    claim.oneTime(),
                    claim.amount(),
                    claim.checkDate(),
                    own);
            List<PastPayment> others = byVendor.get(claim.vendor()).stream()
                    .filter(other -> other.id() != claim.id())
                    .map(other -> new PastPayment("another payment of this batch", other.checkDate(), other.amount()))
                    .toList();
            Known known = new Known(
                    own.stream()
                            .flatMap(paying -> Stream.concat(
                                    alike.getOrDefault(paying.key(), List.of()).stream(),
                                    withoutInvoice.getOrDefault(paying.key(), List.of()).stream()))
                            .distinct()
                            .toList(),
                    ahead.getOrDefault(claim.id(), List.of()),
                    past.getOrDefault(claim.vendor(), List.of()),
                    others,
                    near.getOrDefault(claim.vendor(), List.of()).stream()
                            .filter(invoice ->
                                    own.stream().noneMatch(o -> o.key().equals(invoice.key())))
                            .toList(),
                    changes.getOrDefault(claim.id(), List.of()),
                    sentBack.getOrDefault(claim.id(), List.of()),
                    limits);
            List<Mark> found = Marking.of(asked, known);
            if (!found.isEmpty()) {
                marks.put(new ClaimId(claim.id()), found);
            }
        }
        return marks;
    }

    private Map<Long, List<KnownInvoice>> lines(BatchId batch, Map<Long, Claim> claims) {
        Map<Long, List<KnownInvoice>> paid = new HashMap<>();
        jdbc.sql("""
                        SELECT i.id, l.id AS line_id, c.vendor_id, v.name, COALESCE(i.reference, l.reference) AS reference,
                          COALESCE(i.invoice_date, b.check_date) AS invoice_date,
                          COALESCE(i.amount_minor, l.gross_minor) AS amount_minor, c.currency, '' AS where_it_is,
                          c.id AS claim_id, c.payee, v.one_time, c.amount_minor AS claim_minor, b.check_date
                        FROM claim c JOIN batch b ON b.id = c.batch_id JOIN vendor v ON v.id = c.vendor_id
                        LEFT JOIN claim_line l ON l.claim_id = c.id AND l.kind IN (:compared)
                        LEFT JOIN invoice i ON i.id = l.invoice_id
                        WHERE c.batch_id = :batch ORDER BY c.id, i.id, l.id
                        """).param("batch", batch.value()).param("compared", COMPARED).query((ResultSet r) -> {
            long claim = r.getLong("claim_id");
            if (!claims.containsKey(claim)) {
                Money amount = Money.ofMinor(r.getLong("claim_minor"), r.getString("currency"));
                claims.put(
                        claim,
                        new Claim(
                                claim,
                                r.getLong("vendor_id"),
                                r.getString("payee"),
                                r.getBoolean("one_time"),
                                amount,
                                r.getObject("check_date", LocalDate.class)));
                paid.put(claim, new ArrayList<>());
            }
            if (r.getString("reference") != null) {
                paid.get(claim).add(invoice(r));
            }
        });
        return paid;
    }

    /** By invoice paid here: others of the same amount, of the same vendor or of one at the same address or account. */
    private Map<String, List<KnownInvoice>> alike(BatchId batch) {
        Map<String, List<KnownInvoice>> alike = new HashMap<>();
        jdbc.sql("""
                        SELECT p.id AS paid_id, o.id, o.vendor_id, ov.name, o.reference, o.invoice_date, o.amount_minor, o.currency,
                        """ + WHERE_IT_IS + """
                        FROM (
                          SELECT c.vendor_id, c.vendor_id AS other FROM claim c WHERE c.batch_id = :batch
                          UNION
                          SELECT t.vendor_id, x.vendor_id FROM claim c JOIN remit_to t ON t.vendor_id = c.vendor_id
                          JOIN remit_to x ON x.address_key = t.address_key AND x.vendor_id <> t.vendor_id
                          WHERE c.batch_id = :batch AND t.address_key <> ''
                          UNION
                          SELECT t.vendor_id, x.vendor_id FROM claim c JOIN remit_to t ON t.vendor_id = c.vendor_id
                          JOIN remit_to x ON x.account_key = t.account_key AND x.vendor_id <> t.vendor_id
                          WHERE c.batch_id = :batch AND t.account_key <> ''
                        ) k
                        JOIN claim c ON c.batch_id = :batch AND c.vendor_id = k.vendor_id
                        JOIN claim_line l ON l.claim_id = c.id AND l.kind = 'INVOICE'
                        JOIN invoice p ON p.id = l.invoice_id
                        JOIN invoice o ON o.vendor_id = k.other AND o.cancelled_on IS NULL AND o.kind = 'INVOICE' AND o.amount_minor = p.amount_minor
                          AND o.currency = p.currency AND o.id <> p.id
                          AND o.invoice_date BETWEEN p.invoice_date - INTERVAL 365 DAY AND p.invoice_date + INTERVAL 365 DAY
                        JOIN vendor ov ON ov.id = o.vendor_id ORDER BY p.id, o.id
                        """).param("batch", batch.value()).query((ResultSet r) -> {
            alike.computeIfAbsent(r.getString("paid_id"), none -> new ArrayList<>())
                    .add(invoice(r));
        });
        return alike;
    }

    /**
     * By what is paid here: payments of the same amount to the same vendor that had no invoice, and for what has none here the
     * vendor's invoices. The days of one schedule are no duplicates of each other.
     */
    private Map<String, List<KnownInvoice>> withoutInvoice(BatchId batch) {
        Map<String, List<KnownInvoice>> alike = new HashMap<>();
        jdbc.sql("""
                        SELECT l.invoice_id AS paid_invoice, l.id AS paid_line, CAST(NULL AS SIGNED) AS id, o.id AS line_id, c.vendor_id,
                          oc.payee AS name, o.reference, ob.check_date AS invoice_date, o.gross_minor AS amount_minor,
                          o.currency, CONCAT('in batch “', ob.name, '”') AS where_it_is
                        FROM claim c JOIN batch b ON b.id = c.batch_id
                        JOIN claim_line l ON l.claim_id = c.id AND l.kind IN (:compared)
                        LEFT JOIN invoice i ON i.id = l.invoice_id
                        JOIN standing_claim oc ON oc.vendor_id = c.vendor_id AND oc.currency = c.currency
                        JOIN batch ob ON ob.id = oc.batch_id AND ob.state IN (:standing)
                        LEFT JOIN payment y ON y.claim_id = oc.id
                        JOIN claim_line o ON o.claim_id = oc.id AND o.kind = :direct AND o.id <> l.id
                          AND o.gross_minor = COALESCE(i.amount_minor, l.gross_minor)
                        LEFT JOIN direct_entry d ON d.claim_id = c.id LEFT JOIN direct_entry od ON od.claim_id = oc.id
                        WHERE c.batch_id = :batch AND y.undone_entry_id IS NULL
                          AND NOT COALESCE(d.schedule_id = od.schedule_id, FALSE)
                        UNION ALL
                        SELECT NULL, l.id, i.id, NULL, c.vendor_id, c.payee, i.reference, i.invoice_date, i.amount_minor, i.currency,
                        """ + WHERE_IT_IS.replace("o.", "i.") + """
                        FROM claim c JOIN claim_line l ON l.claim_id = c.id AND l.kind = :direct
                        JOIN invoice i ON i.vendor_id = c.vendor_id AND i.cancelled_on IS NULL AND i.kind = 'INVOICE'
                          AND i.amount_minor = l.gross_minor AND i.currency = l.currency
                        WHERE c.batch_id = :batch ORDER BY paid_line, line_id, id
                        """)
                .param("batch", batch.value())
                .param("compared", COMPARED)
                .param("direct", ClaimLine.Kind.DIRECT.name())
                .param(
                        "standing",
                        Stream.concat(BatchState.live().stream(), Stream.of(BatchState.POSTED))
                                .map(BatchState::name)
                                .distinct()
                                .toList())
                .query((ResultSet r) -> {
                    String key = r.getObject("paid_invoice") == null
                            ? "line " + r.getLong("paid_line")
                            : String.valueOf(r.getLong("paid_invoice"));
                    alike.computeIfAbsent(key, none -> new ArrayList<>()).add(invoice(r));
                });
        return alike;
    }

    /** By claim: what was paid ahead under the references it pays, and still waits. */
    private Map<Long, List<KnownInvoice>> ahead(BatchId batch) {
        Map<Long, List<KnownInvoice>> ahead = new HashMap<>();
        jdbc.sql("""
                        SELECT c.id AS claim_id, a.id, a.vendor_id, v.name, a.reference, a.invoice_date, a.open_minor AS amount_minor,
                          a.currency, 'waits to be matched' AS where_it_is
                        FROM claim c JOIN claim_line l ON l.claim_id = c.id AND l.kind = 'INVOICE'
                        JOIN invoice i ON i.id = l.invoice_id JOIN vendor v ON v.id = i.vendor_id
                        JOIN invoice a ON a.vendor_id = i.vendor_id AND a.kind = 'PREPAYMENT' AND a.reference = i.reference
                          AND a.currency = i.currency AND a.is_open = 1
                        WHERE c.batch_id = :batch ORDER BY a.id
                        """).param("batch", batch.value()).query((ResultSet r) -> {
            ahead.computeIfAbsent(r.getLong("claim_id"), none -> new ArrayList<>())
                    .add(invoice(r));
        });
        return ahead;
    }

    private static KnownInvoice invoice(ResultSet r) throws SQLException {
        Long id = r.getObject("id", Long.class);
        return new KnownInvoice(
                id == null ? null : new InvoiceId(id),
                id == null ? r.getLong("line_id") : 0,
                new VendorId(r.getLong("vendor_id")),
                r.getString("name"),
                r.getString("reference"),
                r.getObject("invoice_date", LocalDate.class),
                Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                r.getString("where_it_is"));
    }

    /** By vendor: its last payments and those of the last weeks, newest first. */
    private Map<Long, List<PastPayment>> past(BatchId batch, LocalDate today) {
        Map<Long, List<PastPayment>> past = new HashMap<>();
        jdbc.sql("""
                        SELECT x.vendor_id, x.what, x.check_date, x.amount_minor, x.currency FROM (
                          SELECT p.vendor_id, p.currency, COALESCE(CONCAT('check ', n.number), i.called, 'a payment') AS what,
                            p.check_date, p.amount_minor, p.id,
                            ROW_NUMBER() OVER (PARTITION BY p.vendor_id, p.currency ORDER BY p.check_date DESC, p.id DESC)
                              AS place
                          FROM payment p LEFT JOIN check_number n ON n.live_payment_id = p.id
                          LEFT JOIN electronic_item i ON i.payment_id = p.id
                          JOIN batch b ON b.id = :batch JOIN bank_account a ON a.id = b.bank_account_id
                          WHERE p.vendor_id IN (SELECT c.vendor_id FROM claim c WHERE c.batch_id = :batch)
                            AND p.currency = a.currency AND p.undone_entry_id IS NULL AND p.batch_id <> :batch) x
                        WHERE x.place <= 12 OR x.check_date >= :lately ORDER BY x.vendor_id, x.check_date DESC, x.id DESC
                        """)
                .param("batch", batch.value())
                .param("lately", today.minusDays(TwoPeople.DAYS))
                .query((ResultSet r) -> {
                    past.computeIfAbsent(r.getLong("vendor_id"), none -> new ArrayList<>())
                            .add(new PastPayment(
                                    r.getString("what"),
                                    r.getObject("check_date", LocalDate.class),
                                    Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"))));
                });
        return past;
    }

    /** By claim: what was changed lately about the place it goes to; the address a vendor began with is no change. */
    private Map<Long, List<Fact.Change>> changes(BatchId batch, LocalDate today) {
        Map<Long, List<Fact.Change>> changes = new HashMap<>();
        jdbc.sql("""
                        SELECT c.id, h.what, h.before_payee, h.before_address, h.before_bank_mask, h.after_payee,
                          h.after_address, h.after_bank_mask, h.decided_on, p.name AS person_name, d.name AS deputy_name
                        FROM claim c JOIN vendor_change h ON h.remit_to_id = c.remit_to_id AND h.state = 'CONFIRMED'
                        JOIN person p ON p.id = h.proposed_by JOIN person d ON d.id = h.decided_by
                        WHERE c.batch_id = :batch AND h.decided_on >= :lately AND (h.before_payee <> '' OR EXISTS (
                          SELECT 1 FROM remit_to o WHERE o.vendor_id = h.vendor_id AND o.id < h.remit_to_id))
                        ORDER BY c.id, h.id
                        """)
                .param("batch", batch.value())
                .param("lately", today.minusDays(TwoPeople.DAYS))
                .query((ResultSet r) -> {
                    boolean bank = r.getString("what").equals("bank details");
                    changes.computeIfAbsent(r.getLong("id"), none -> new ArrayList<>())
                            .add(new Fact.Change(
                                    r.getString("what"),
                                    told(
                                            r.getString("before_payee"),
                                            r.getString("before_address"),
                                            r.getString("before_bank_mask"),
                                            bank),
                                    told(
                                            r.getString("after_payee"),
                                            r.getString("after_address"),
                                            r.getString("after_bank_mask"),
                                            bank),
                                    r.getObject("decided_on", LocalDate.class),
                                    r.getString("person_name"),
                                    r.getString("deputy_name")));
                });
        return changes;
    }

    /** By claim that goes by file: what came back from its account, while that is the same, the newest first. */
    private Map<Long, List<SentBack>> sentBack(BatchId batch) {
        Map<Long, List<SentBack>> sentBack = new HashMap<>();
        jdbc.sql("""
                        SELECT c.id, i.called, n.read_on, n.code, n.words FROM claim c
                        JOIN batch b ON b.id = c.batch_id AND b.method IN (:byFile)
                        JOIN payment p ON p.vendor_id = c.vendor_id
                        JOIN bank_notice n ON n.payment_id = p.id AND n.kind = 'RETURNED' AND n.state <> 'CLOSED'
                        JOIN claim was ON was.id = p.claim_id AND was.remit_to_id = c.remit_to_id
                        JOIN electronic_item i ON i.payment_id = p.id
                        WHERE c.batch_id = :batch AND NOT EXISTS (
                          SELECT 1 FROM vendor_change h WHERE h.remit_to_id = c.remit_to_id AND h.state = 'CONFIRMED'
                            AND h.decided_at > n.read_at AND h.after_bank_key <> h.before_bank_key)
                        ORDER BY c.id, n.id DESC
                        """)
                .param("batch", batch.value())
                .param("byFile", PaymentMethod.electronic())
                .query((ResultSet r) -> {
                    sentBack.computeIfAbsent(r.getLong("id"), none -> new ArrayList<>())
                            .add(new SentBack(
                                    r.getString("called"),
                                    r.getObject("read_on", LocalDate.class),
                                    r.getString("code") + ": " + r.getString("words")));
                });
        return sentBack;
    }

    private static String told(String payee, String address, String bank, boolean bankOnly) {
        if (bankOnly) {
            return bank.isEmpty() ? "none" : bank;
        }
        return payee.isEmpty()
                ? "none"
                : payee + ", " + address.replace("\n", ", ") + (bank.isEmpty() ? "" : ", " + bank);
    }

    /** By vendor: invoices that could lie just under a limit, dated around those paid here. */
    private Map<Long, List<KnownInvoice>> near(BatchId batch, List<Money> limits, Map<Long, List<KnownInvoice>> paid) {
        Map<Long, List<KnownInvoice>> near = new HashMap<>();
        if (limits.isEmpty() || paid.isEmpty()) {
            return near;
        }
        List<LocalDate> dates = paid.values().stream()
                .flatMap(List::stream)
                .map(KnownInvoice::date)
                .sorted()
                .toList();
        if (dates.isEmpty()) {
            return near;
        }
        jdbc.sql("""
                        SELECT o.id, o.vendor_id, v.name, o.reference, o.invoice_date, o.amount_minor, o.currency, '' AS where_it_is
                        FROM invoice o JOIN vendor v ON v.id = o.vendor_id
                        WHERE o.vendor_id IN (SELECT c.vendor_id FROM claim c WHERE c.batch_id = :batch)
                          AND o.cancelled_on IS NULL AND o.kind = 'INVOICE' AND o.currency = :currency AND o.amount_minor BETWEEN :low AND :high
                          AND o.invoice_date BETWEEN :from AND :until ORDER BY o.id
                        """)
                .param("batch", batch.value())
                .param("currency", limits.get(0).currency().getCurrencyCode())
                .param("low", limits.get(0).minor() / 10 * 9)
                .param("high", limits.get(limits.size() - 1).minor())
                .param("from", dates.get(0).minusDays(TwoPeople.DAYS))
                .param("until", dates.get(dates.size() - 1).plusDays(TwoPeople.DAYS))
                .query((ResultSet r) -> {
                    near.computeIfAbsent(r.getLong("vendor_id"), none -> new ArrayList<>())
                            .add(invoice(r));
                });
        return near;
    }
}
