package leveltally.server.contacts;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.contacts.Dormancy;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** When what a payee did not claim is handed over to the state, and to which. */
@Service
public class Unclaimed {
    private final JdbcClient jdbc;
    private final JdbcTemplate plain;
    private final AuditTrail audit;

    Unclaimed(JdbcClient jdbc, JdbcTemplate plain, AuditTrail audit) {
        this.jdbc = jdbc;
        this.plain = plain;
        this.audit = audit;
    }

    /**
     * Whether a check can be handed over.
     *
     * @param rule of the state of the payee's address; null where none is kept
     * @param written whether the payee was asked by letter or mail
     */
    public record Ready(Dormancy.@Nullable Rule rule, LocalDate checkDate, boolean written) {
        /** The first day; null where no rule is kept. */
        public @Nullable LocalDate from() {
            return rule == null ? null : rule.from(checkDate);
        }

        /** @throws Refusal when it cannot be dated that day yet */
        public void mustBe(String name, LocalDate on) {
            LocalDate from = from();
            if (rule == null || from == null) {
                throw Refusal.conflict(
                        "no-dormancy",
                        "It is not kept after how many years the state of this payee's address takes what is unclaimed. The"
                                + " controller writes that down under Checks not presented.");
            }
            if (on.isBefore(from)) {
                throw Refusal.conflict(
                        "not-dormant",
                        name + " can be handed over to " + rule.state() + " from " + Dates.inWords(from) + " on, "
                                + rule.years() + (rule.years() == 1 ? " year" : " years") + " after its date.");
            }
            if (!written) {
                throw Refusal.conflict(
                        "not-asked",
                        "The payee of " + name
                                + " was not asked by letter or mail yet. Do that under Checks not presented.");
            }
        }
    }

    /** The rules there are. */
    @Transactional(readOnly = true)
    public Dormancy dormancy() {
        return new Dormancy(jdbc.sql("SELECT prefix, state, years FROM dormancy ORDER BY prefix = '', prefix")
                .query((r, n) -> new Dormancy.Rule(r.getString("prefix"), r.getString("state"), r.getInt("years")))
                .list());
    }

    /** Keeps these rules instead of those there are. */
    @Transactional
    public void keep(Actor by, Dormancy wanted) {
        by.mayDo(Deed.CHANGE_LETTER);
        Dormancy before = dormancy();
        jdbc.sql("DELETE FROM dormancy").update();
        List<Object[]> rows = new ArrayList<>();
        wanted.rules().forEach(rule -> rows.add(new Object[] {rule.prefix(), rule.state(), rule.years()}));
        plain.batchUpdate("INSERT INTO dormancy (prefix, state, years) VALUES (?, ?, ?)", rows);
        audit.record(
                by,
                "change years until unclaimed",
                "company 1",
                Map.of("before", before.typed(), "after", wanted.typed()));
    }

    /** How far these checks are. */
    @Transactional(readOnly = true)
    public Map<PaymentId, Ready> of(Collection<PaymentId> payments) {
        Map<PaymentId, Ready> found = new HashMap<>();
        if (payments.isEmpty()) {
            return found;
        }
        Dormancy dormancy = dormancy();
        jdbc.sql("""
                        SELECT p.id, p.check_date, COALESCE(NULLIF(c.postal_code, ''), r.postal_code) AS postal_code,
                          EXISTS (SELECT 1 FROM contact k WHERE k.payment_id = p.id AND k.how IN ('LETTER', 'MAIL')) AS written
                        FROM payment p JOIN claim c ON c.id = p.claim_id JOIN remit_to r ON r.id = c.remit_to_id
                        WHERE p.id IN (:payments)
                        """)
                .param("payments", payments.stream().map(PaymentId::value).toList())
                .query((java.sql.ResultSet r) -> {
                    found.put(
                            new PaymentId(r.getLong("id")),
                            new Ready(
                                    dormancy.of(r.getString("postal_code")).orElse(null),
                                    r.getObject("check_date", LocalDate.class),
                                    r.getBoolean("written")));
                });
        return found;
    }
}
