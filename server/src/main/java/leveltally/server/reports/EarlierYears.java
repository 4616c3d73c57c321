package leveltally.server.reports;

import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.Reportable;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.MoneyView;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Years that were reported and of which a payment was undone later: they stay, unless the controller lets them fall. */
@Service
public class EarlierYears {
    private static final int MOST_LISTED = 1_000;

    private final JdbcClient jdbc;
    private final JdbcTemplate plain;
    private final AuditTrail audit;

    EarlierYears(JdbcClient jdbc, JdbcTemplate plain, AuditTrail audit) {
        this.jdbc = jdbc;
        this.plain = plain;
        this.audit = audit;
    }

    /** What was undone after the year it is reported in; what another payment replaces counts there and is missing. */
    @Transactional(readOnly = true)
    List<EarlierYear> of(Actor by, int year) {
        by.mayDo(Deed.READ);
        return jdbc.sql("""
                        SELECT x.id, p.payee, p.check_date, x.paid_in, x.undone_on, x.falls, x.amount_minor, x.currency, v.id AS vendor,
                          v.name, v.reportable, b.method, k.number,
                          w.name AS chosen_by, c.chosen_at, COALESCE(c.reason, '') AS reason
                        FROM reported_payment x JOIN payment p ON p.id = x.id JOIN batch b ON b.id = p.batch_id
                        JOIN vendor v ON v.id = x.vendor_id AND v.reportable <> :no
                        JOIN payment_carried k ON k.payment_id = x.id
                        LEFT JOIN year_choice c ON c.payment_id = x.id
                          AND c.step = (SELECT MAX(y.step) FROM year_choice y WHERE y.payment_id = x.id)
                        LEFT JOIN person w ON w.id = c.chosen_by
                        WHERE x.paid_in = :year AND x.undone_in > x.paid_in AND NOT x.replaced
                        ORDER BY v.name, p.check_date, x.id LIMIT :most
                        """)
                .param("no", Reportable.NO.name())
                .param("year", year)
                .param("most", MOST_LISTED)
                .query((r, n) -> {
                    Timestamp at = r.getTimestamp("chosen_at");
                    return new EarlierYear(
                            r.getLong("id"),
                            PaymentMethod.valueOf(r.getString("method")).called(r.getString("number")),
                            r.getLong("vendor"),
                            r.getString("name"),
                            Reportable.valueOf(r.getString("reportable")).words(),
                            MoneyView.of(r.getLong("amount_minor"), r.getString("currency")),
                            r.getObject("check_date", LocalDate.class),
                            r.getInt("paid_in"),
                            r.getObject("undone_on", LocalDate.class),
                            r.getBoolean("falls"),
                            r.getString("chosen_by"),
                            at == null ? null : at.toInstant(),
                            r.getString("reason"));
                })
                .list();
    }

    /**
     * Chooses for payments that were undone later; a choice is never changed, only followed by another.
     *
     * @param falls whether the year they are reported in falls by them
     * @throws Refusal when one of them was not undone in a later year; then none is chosen for
     */
    @Transactional
    public void choose(Actor by, List<PaymentId> payments, boolean falls, String reason) {
        by.mayDo(Deed.CHOOSE_YEAR);
        String why = reason.strip();
        if (why.isEmpty()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why, for whoever asks about the year later.");
        }
        Set<Long> wanted = new LinkedHashSet<>();
        payments.forEach(payment -> wanted.add(payment.value()));
        if (wanted.isEmpty()) {
            throw Refusal.invalid("nothing-chosen", "Choose the payments first.");
        }
        // whoever chooses for one of them waits here
        jdbc.sql("SELECT id FROM payment WHERE id IN (:ids) ORDER BY id FOR UPDATE")
                .param("ids", wanted)
                .query(Long.class)
                .list();
        Map<Long, Integer> steps = new java.util.HashMap<>();
        jdbc.sql("""
                        SELECT x.id, (SELECT COALESCE(MAX(c.step), 0) FROM year_choice c WHERE c.payment_id = x.id) AS step
                        FROM reported_payment x WHERE x.id IN (:ids) AND x.undone_in > x.paid_in AND NOT x.replaced
                        """).param("ids", wanted).query((java.sql.ResultSet r) -> {
            steps.put(r.getLong("id"), r.getInt("step"));
        });
        if (steps.size() < wanted.size()) {
            throw Refusal.conflict(
                    "no-earlier-year",
                    "Not all of these were undone in a later year than the one they are reported in. Look at the list again.");
        }
        List<Object[]> rows = new ArrayList<>();
        steps.forEach((payment, step) -> rows.add(new Object[] {
            payment, step + 1, falls, why, Timestamp.from(by.now()), by.person().value()
        }));
        plain.batchUpdate(
                "INSERT INTO year_choice (payment_id, step, falls, reason, chosen_at, chosen_by) VALUES (?, ?, ?, ?, ?, ?)",
                rows);
        audit.record(
                by,
                "choose the reported year",
                "payments " + wanted,
                Map.of("the year", falls ? "falls" : "stays as reported", "reason", why));
    }
}
