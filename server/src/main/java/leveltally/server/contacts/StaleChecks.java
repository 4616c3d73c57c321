package leveltally.server.contacts;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import leveltally.core.contacts.Dormancy;
import leveltally.core.contacts.How;
import leveltally.core.money.Money;
import leveltally.core.payments.AgeBand;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.company.Companies;
import leveltally.server.frame.MoneyView;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Reads the checks that the bank has not paid for long, each with how its payee was asked. */
@Service
class StaleChecks {
    private static final int MOST_LISTED = 500;
    private static final List<String> WAITING = List.of(PaymentState.OUTSTANDING.name(), PaymentState.STOPPED.name());

    private final JdbcClient jdbc;
    private final Companies companies;
    private final Unclaimed unclaimed;

    StaleChecks(JdbcClient jdbc, Companies companies, Unclaimed unclaimed) {
        this.unclaimed = unclaimed;
        this.jdbc = jdbc;
        this.companies = companies;
    }

    /** @param days they are outstanding for more than; below zero takes the company's policy */
    @Transactional(readOnly = true)
    StaleView longerThan(Actor by, int days) {
        by.mayDo(Deed.READ);
        int policy = companies.staleDays();
        LocalDate before = by.today().minusDays(days < 0 ? policy : days);
        Dormancy dormancy = unclaimed.dormancy();
        List<StaleView.StaleCheck> checks = jdbc.sql("""
                        SELECT p.id, n.id AS check_id, CONCAT(s.prefix, n.number) AS number, n.state = 'PRINTED' AS printed, p.payee,
                          p.vendor_id, c.address, COALESCE(NULLIF(c.postal_code, ''), t.postal_code) AS postal_code, p.check_date, p.amount_minor, p.currency, p.state, v.email,
                          EXISTS (SELECT 1 FROM waiting_undoing w WHERE w.payment_id = p.id) AS waits
                        FROM payment p JOIN check_number n ON n.live_payment_id = p.id
                        JOIN number_series s ON s.id = n.series_id JOIN vendor v ON v.id = p.vendor_id
                        JOIN claim c ON c.id = p.claim_id JOIN remit_to t ON t.id = c.remit_to_id
                        WHERE p.state IN (:waiting) AND p.check_date < :before ORDER BY p.check_date, n.number LIMIT :most
                        """)
                .param("waiting", WAITING)
                .param("before", before)
                .param("most", MOST_LISTED)
                .query((r, n) -> check(r, dormancy, by.today()))
                .list();
        contacts(checks);
        return new StaleView(policy, checks, sums(before), ages(by.today()));
    }

    private static StaleView.StaleCheck check(ResultSet r, Dormancy dormancy, LocalDate today) throws SQLException {
        LocalDate dated = r.getObject("check_date", LocalDate.class);
        Optional<Dormancy.Rule> rule = dormancy.of(r.getString("postal_code"));
        return new StaleView.StaleCheck(
                r.getLong("id"),
                r.getLong("check_id"),
                r.getString("number"),
                r.getString("payee"),
                r.getLong("vendor_id"),
                r.getString("address").replace("\n", ", "),
                dated,
                ChronoUnit.DAYS.between(dated, today),
                MoneyView.of(r.getLong("amount_minor"), r.getString("currency")),
                r.getString("state").equals(PaymentState.STOPPED.name()),
                r.getBoolean("waits"),
                !r.getString("email").isEmpty(),
                r.getBoolean("printed"),
                rule.map(Dormancy.Rule::state).orElse(""),
                rule.map(one -> one.from(dated)).orElse(null),
                new ArrayList<>());
    }

    private void contacts(List<StaleView.StaleCheck> checks) {
        Map<Long, StaleView.StaleCheck> by = new HashMap<>();
        checks.forEach(check -> by.put(check.payment(), check));
        if (by.isEmpty()) {
            return;
        }
        jdbc.sql("SELECT k.payment_id, k.how, k.contacted_on, k.note, k.made_at, w.name FROM contact k"
                        + " JOIN person w ON w.id = k.made_by WHERE k.payment_id IN (:payments) ORDER BY k.id DESC")
                .param("payments", by.keySet())
                .query((java.sql.ResultSet r) -> {
                    by.get(r.getLong("payment_id"))
                            .contacts()
                            .add(new StaleView.ContactView(
                                    How.valueOf(r.getString("how")).words(),
                                    r.getObject("contacted_on", LocalDate.class),
                                    r.getString("note"),
                                    r.getString("name"),
                                    r.getTimestamp("made_at").toInstant()));
                });
    }

    private List<MoneyView> sums(LocalDate before) {
        return jdbc.sql(
                        "SELECT p.currency, SUM(p.amount_minor) AS amount_minor FROM payment p"
                                + " JOIN check_number n ON n.live_payment_id = p.id"
                                + " WHERE p.state IN (:waiting) AND p.check_date < :before GROUP BY p.currency ORDER BY p.currency")
                .param("waiting", WAITING)
                .param("before", before)
                .query((r, n) -> MoneyView.of(r.getLong("amount_minor"), r.getString("currency")))
                .list();
    }

    /** All outstanding checks by how old they are, currency by currency, drawn to the largest amount of a currency. */
    private List<StaleView.AgeView> ages(LocalDate today) {
        record Sum(int checks, Money amount) {}
        Map<String, Map<AgeBand, Sum>> currencies = new TreeMap<>();
        jdbc.sql(
                        "SELECT p.check_date, p.currency, COUNT(*) AS checks, SUM(p.amount_minor) AS amount_minor FROM payment p"
                                + " JOIN batch b ON b.id = p.batch_id AND b.method = :check"
                                + " WHERE p.state IN (:waiting) GROUP BY p.check_date, p.currency")
                .param("check", PaymentMethod.CHECK.name())
                .param("waiting", WAITING)
                .query((java.sql.ResultSet r) -> {
                    String currency = r.getString("currency");
                    AgeBand band =
                            AgeBand.of(ChronoUnit.DAYS.between(r.getObject("check_date", LocalDate.class), today));
                    currencies
                            .computeIfAbsent(currency, none -> new TreeMap<>())
                            .merge(
                                    band,
                                    new Sum(r.getInt("checks"), Money.ofMinor(r.getLong("amount_minor"), currency)),
                                    (a, b) -> new Sum(
                                            a.checks() + b.checks(), a.amount().plus(b.amount())));
                });
        List<StaleView.AgeView> ages = new ArrayList<>();
        currencies.forEach((currency, bands) -> {
            long most = most(bands.values().stream().map(Sum::amount).toList());
            Arrays.stream(AgeBand.values()).forEach(band -> {
                Sum sum = bands.get(band);
                ages.add(new StaleView.AgeView(
                        band.words(),
                        sum == null ? 0 : sum.checks(),
                        MoneyView.of(sum == null ? 0 : sum.amount().minor(), currency),
                        sum == null ? 0 : (int) (sum.amount().minor() * 100 / most)));
            });
        });
        return ages;
    }

    private static long most(Collection<Money> amounts) {
        return Math.max(1, amounts.stream().mapToLong(Money::minor).max().orElse(1));
    }
}
