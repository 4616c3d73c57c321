package leveltally.server.clearing;

import java.sql.ResultSet;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import leveltally.core.clearing.Reconciliation;
import leveltally.core.clearing.Reconciliation.Kind;
import leveltally.core.clearing.Reconciliation.Row;
import leveltally.core.clearing.Reconciliation.Section;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentState;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.ledger.BankAccount;
import org.springframework.jdbc.core.simple.JdbcClient;

/** What stood between bank and ledger at the end of one day. */
final class AsOf {
    /** What stood for movements on the day. */
    private static final String AT_DAY = """
                at_day AS (SELECT k.id, k.movement_id, k.kind, k.payment_id, k.entry_id, k.other_movement_id, k.claim_id,
                  k.amount_minor FROM bank_match k WHERE k.bank_account_id = :account AND k.on_day <= :day
                    AND (k.undone_on IS NULL OR k.undone_on > :day)),
                in_ledger AS (SELECT movement_id, SUM(amount_minor) AS minor FROM at_day WHERE kind IN ('PAYMENT', 'ENTRY')
                  GROUP BY movement_id)
                """;

    /** In the order of their days, whenever they were read: one that was missing takes its place. */
    private static final String STATEMENTS = """
            statements AS (SELECT opening_minor, closing_minor, from_day, number, gap, LAG(closing_minor) OVER (ORDER BY from_day,
              to_day, place) AS before_minor FROM bank_report WHERE bank_account_id = :account AND place IS NOT NULL)
            """;

    private final JdbcClient jdbc;
    private final BankAccount account;
    private final LocalDate before;
    private final LocalDate day;
    private final Money none;

    /** @param before the day before the first statement */
    AsOf(JdbcClient jdbc, BankAccount account, LocalDate before, LocalDate day) {
        this.jdbc = jdbc;
        this.account = account;
        this.before = before;
        this.day = day;
        this.none = Money.zero(account.currency());
    }

    private JdbcClient.StatementSpec sql(String sql) {
        JdbcClient.StatementSpec statement = jdbc.sql(sql);
        Map<String, Object> known = Map.of(
                "account", account.id().value(),
                "day", day,
                "before", before,
                "cash", account.cash().value(),
                "currency", account.currency().getCurrencyCode(),
                "check", PaymentMethod.CHECK.name(),
                "waiting",
                        Stream.of(PaymentState.OUTSTANDING, PaymentState.STOPPED)
                                .map(Enum::name)
                                .toList());
        for (Map.Entry<String, Object> one : known.entrySet()) {
            if (sql.contains(":" + one.getKey())) {
                statement = statement.param(one.getKey(), one.getValue());
            }
        }
        return statement;
    }

    private Money money(ResultSet r, String column) throws java.sql.SQLException {
        return Money.ofMinor(r.getLong(column), account.currency());
    }

    Reconciliation reconciliation() {
        List<Section> sections = new ArrayList<>();
        sections.add(Section.of(Kind.OUTSTANDING, outstanding(), none));
        sections.add(Section.of(Kind.IN_TRANSIT, inTransit(), none));
        AtTheBank atTheBank = new AtTheBank(notInLedger(), pairs(), none);
        sections.add(Section.of(Kind.OWED, atTheBank.owed(), none));
        sections.add(Section.of(Kind.OPEN, atTheBank.open(), none));
        sections.add(Section.of(Kind.LISTED, listed(), none));
        sections.add(Section.of(Kind.GAP, gaps(), none));
        sections.add(Section.of(Kind.BEGINNING, beginning(), none));
        return new Reconciliation(account.name(), day, balance(), sections, ledger(day));
    }

    /** The first opening balance, every movement since, and what is missing between two statements. */
    private Money balance() {
        return sql("WITH " + STATEMENTS + """
                        SELECT (SELECT opening_minor FROM statements WHERE before_minor IS NULL)
                          + COALESCE((SELECT SUM(m.amount_minor) FROM bank_movement m JOIN bank_report r ON r.id = m.report_id
                              AND r.place IS NOT NULL WHERE m.bank_account_id = :account AND m.bank_date <= :day), 0)
                          + COALESCE((SELECT SUM(opening_minor - before_minor) FROM statements WHERE from_day <= :day), 0) AS minor
                        """)
                .query((r, n) -> money(r, "minor"))
                .single();
    }

    private Money ledger(LocalDate until) {
        return jdbc.sql("SELECT COALESCE(SUM(l.debit_minor - l.credit_minor), 0) AS minor FROM journal_line l"
                        + " JOIN journal_entry e ON e.id = l.entry_id WHERE l.account_id = :cash AND l.currency = :currency"
                        + " AND e.ledger_date <= :until")
                .param("cash", account.cash().value())
                .param("currency", account.currency().getCurrencyCode())
                .param("until", until)
                .query((r, n) -> money(r, "minor"))
                .single();
    }

    /** What was outstanding before the first statement, by what is known on the day: a clearing taken back since was none. */
    private Money outstandingBefore() {
        return sql("""
                        SELECT COALESCE(SUM(p.amount_minor), 0) AS minor FROM payment p
                        JOIN journal_entry j ON j.id = p.posted_entry_id AND j.ledger_date <= :before
                        JOIN check_number n ON n.live_payment_id = p.id
                        LEFT JOIN journal_entry u ON u.id = p.undone_entry_id AND u.ledger_date <= :before
                        LEFT JOIN bank_match k ON k.payment_id = p.id AND k.on_day <= :before
                          AND (k.undone_on IS NULL OR k.undone_on > :day)
                        WHERE p.bank_account_id = :account AND u.id IS NULL AND k.id IS NULL
                        """).query((r, n) -> money(r, "minor")).single();
    }

    private List<Row> outstanding() {
        return sql("""
                        SELECT p.check_date, CONCAT(s.prefix, n.number) AS number, p.payee, p.amount_minor
                        FROM payment p JOIN journal_entry j ON j.id = p.posted_entry_id AND j.ledger_date <= :day
                        JOIN payment_event e ON e.payment_id = p.id AND e.step = (SELECT MAX(x.step) FROM payment_event x
                          WHERE x.payment_id = p.id AND x.business_date <= :day)
                        JOIN check_number n ON n.live_payment_id = p.id JOIN number_series s ON s.id = n.series_id
                        WHERE p.bank_account_id = :account AND e.to_state IN (:waiting) ORDER BY p.check_date, n.number
                        """)
                .query((r, n) -> new Row(
                        r.getObject("check_date", LocalDate.class),
                        "Check " + r.getString("number"),
                        r.getString("payee"),
                        money(r, "amount_minor").negated()))
                .list();
    }

    /** Entries that are no payment, payments without a number, and what undid a payment its bank had paid. */
    private List<Row> inTransit() {
        return sql("WITH " + AT_DAY + """
                            SELECT x.ledger_date, x.text, x.moved_minor FROM (
                              SELECT e.id, e.ledger_date, e.text, SUM(l.debit_minor - l.credit_minor) AS moved_minor
                              FROM journal_entry e JOIN journal_line l ON l.entry_id = e.id AND l.account_id = :cash
                                AND l.currency = :currency
                              LEFT JOIN at_day k ON k.entry_id = e.id
                              LEFT JOIN journal_entry t ON t.reverses_id = e.id AND t.ledger_date <= :day
                              LEFT JOIN at_day o ON o.entry_id = e.reverses_id
                              WHERE e.kind IN ('BANK', 'REFUND') AND e.ledger_date <= :day AND k.id IS NULL AND t.id IS NULL
                                AND (e.reverses_id IS NULL OR o.id IS NOT NULL)
                                AND (e.ledger_date > :before OR EXISTS (SELECT 1 FROM bank_match f JOIN bank_movement m
                                  ON m.id = f.movement_id AND m.bank_date > :before
                                  WHERE f.standing_entry_id = e.id AND f.bank_account_id = :account))
                              GROUP BY e.id
                              UNION ALL
                              SELECT e.id, e.ledger_date, e.text, -p.amount_minor FROM payment p
                              JOIN batch b ON b.id = p.batch_id AND b.method <> :check
                              JOIN way_to_pay w ON w.id = b.way_id AND w.owed_account_id IS NULL
                              JOIN journal_entry e ON e.id = p.posted_entry_id AND e.ledger_date <= :day
                              LEFT JOIN journal_entry u ON u.id = p.undone_entry_id AND u.ledger_date <= :day
                              LEFT JOIN at_day k ON k.payment_id = p.id
                              WHERE p.bank_account_id = :account AND k.id IS NULL AND u.id IS NULL
                                AND (e.ledger_date > :before OR EXISTS (SELECT 1 FROM bank_match f WHERE f.standing_payment_id = p.id))
                              UNION ALL
                              SELECT e.id, e.ledger_date, e.text, p.amount_minor FROM at_day s JOIN payment p ON p.id = s.payment_id
                              JOIN journal_entry e ON e.id = p.undone_entry_id AND e.ledger_date <= :day
                              LEFT JOIN at_day k ON k.entry_id = e.id WHERE k.id IS NULL) x
                            ORDER BY x.ledger_date, x.id
                            """)
                .query((r, n) -> new Row(
                        r.getObject("ledger_date", LocalDate.class), r.getString("text"), "", money(r, "moved_minor")))
                .list();
    }

    /** Movements of statements of which the ledger does not have all. */
    private List<AtTheBank.Moved> notInLedger() {
        return sql("WITH " + AT_DAY + """
                            , told AS (SELECT t.movement_id, MAX(t.other_movement_id) AS carrier, SUM(COALESCE(l.minor, 0)) AS minor
                              FROM at_day t LEFT JOIN in_ledger l ON l.movement_id = t.other_movement_id WHERE t.kind = 'TOLD'
                              GROUP BY t.movement_id)
                            SELECT m.id, m.bank_date, m.number_text, m.text, told.carrier,
                              m.amount_minor - COALESCE(own.minor, 0) - COALESCE(told.minor, 0) AS rest_minor
                            FROM bank_movement m JOIN bank_report r ON r.id = m.report_id AND r.place IS NOT NULL
                            LEFT JOIN in_ledger own ON own.movement_id = m.id LEFT JOIN told ON told.movement_id = m.id
                            WHERE m.bank_account_id = :account AND m.bank_date <= :day
                              AND m.amount_minor <> COALESCE(own.minor, 0) + COALESCE(told.minor, 0)
                            ORDER BY m.bank_date, m.id
                            """)
                .query((r, n) -> new AtTheBank.Moved(
                        r.getLong("id"),
                        r.getObject("carrier", Long.class),
                        r.getObject("bank_date", LocalDate.class),
                        r.getString("number_text"),
                        r.getString("text"),
                        money(r, "rest_minor")))
                .list();
    }

    /** What the bank owes or gave back, and what it turned, on the day. */
    private List<AtTheBank.Pair> pairs() {
        return sql("WITH " + AT_DAY + """
                            SELECT k.id, k.movement_id, k.kind, COALESCE(k.other_movement_id, c.movement_id) AS other, k.claim_id,
                              k.amount_minor
                            FROM at_day k LEFT JOIN bank_match c ON c.id = k.claim_id
                            WHERE k.kind IN ('CLAIM', 'CORRECTION', 'TURNED') ORDER BY k.id
                            """)
                .query((r, n) -> new AtTheBank.Pair(
                        r.getLong("id"),
                        r.getLong("movement_id"),
                        MatchKind.valueOf(r.getString("kind")),
                        r.getObject("other", Long.class),
                        r.getObject("claim_id", Long.class),
                        money(r, "amount_minor")))
                .list();
    }

    /** Paid by a list or by hand since the first statement began, and on no statement by that day. */
    private List<Row> listed() {
        return sql("WITH " + AT_DAY + """
                            SELECT m.bank_date, m.number_text, r.kind, l.minor FROM in_ledger l JOIN bank_movement m ON m.id = l.movement_id
                            JOIN bank_report r ON r.id = m.report_id AND r.place IS NULL
                            WHERE m.bank_date > :before AND l.minor <> 0 AND NOT EXISTS (
                              SELECT 1 FROM at_day t JOIN bank_movement s ON s.id = t.movement_id AND s.bank_date <= :day
                              JOIN bank_report q ON q.id = s.report_id AND q.place IS NOT NULL
                              WHERE t.kind = 'TOLD' AND t.other_movement_id = m.id)
                            ORDER BY m.bank_date, m.id
                            """)
                .query((r, n) -> new Row(
                        r.getObject("bank_date", LocalDate.class),
                        "Check " + r.getString("number_text"),
                        TheBankSays.valueOf(r.getString("kind")).words(),
                        money(r, "minor")))
                .list();
    }

    private List<Row> gaps() {
        return sql("WITH " + STATEMENTS + """
                        SELECT from_day, number, gap, before_minor - opening_minor AS minor FROM statements
                        WHERE from_day <= :day AND before_minor <> opening_minor ORDER BY from_day
                        """)
                .query((r, n) -> new Row(
                        r.getObject("from_day", LocalDate.class),
                        "Before statement " + r.getString("number"),
                        r.getString("gap"),
                        money(r, "minor")))
                .list();
    }

    /** What the ledger had more than the bank before the first statement, beside what was outstanding and in transit. */
    private List<Row> beginning() {
        Money opening = sql("WITH " + STATEMENTS
                        + "SELECT opening_minor AS minor FROM statements WHERE before_minor IS NULL")
                .query((r, n) -> money(r, "minor"))
                .single();
        Money transit = new AsOf(jdbc, account, before, before)
                .inTransit().stream().map(Row::amount).reduce(none, Money::plus);
        Money difference = ledger(before)
                .plus(begunWith())
                .plus(outstandingBefore())
                .minus(opening)
                .minus(transit);
        return difference.isZero()
                ? List.of()
                : List.of(new Row(before, "Ledger less bank", "before the first statement", difference));
    }

    /** What an account began with counts from the beginning, though it was written later. */
    private Money begunWith() {
        return sql("SELECT COALESCE(SUM(l.debit_minor - l.credit_minor), 0) AS minor FROM journal_line l JOIN journal_entry e"
                        + " ON e.id = l.entry_id WHERE l.account_id = :cash AND l.currency = :currency"
                        + " AND e.kind = 'OPENING' AND e.ledger_date > :before AND e.ledger_date <= :day")
                .query((r, n) -> money(r, "minor"))
                .single();
    }
}
