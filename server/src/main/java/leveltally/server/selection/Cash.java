package leveltally.server.selection;

import java.time.LocalDate;
import java.time.YearMonth;
import leveltally.core.batches.BatchState;
import leveltally.core.money.Money;
import leveltally.core.selection.CashAvailable;
import leveltally.server.ledger.BankAccount;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** The cash a new batch of an account may use. */
@Component
public class Cash {
    private final JdbcClient jdbc;

    Cash(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** @param own a batch whose own payments do not count; 0 for none */
    @Transactional(readOnly = true)
    public CashAvailable available(BankAccount account, LocalDate checkDate, long own) {
        record Moved(Money sum, LocalDate last) {}
        // what somebody brought in counts until a statement tells of its day
        Moved moved = jdbc.sql("""
                        SELECT COALESCE(SUM(x.amount_minor), 0) AS amount_minor, MAX(x.day) AS last_date FROM (
                          SELECT c.amount_minor, c.movement_date AS day FROM cash_movement c
                          WHERE c.bank_account_id = :account AND c.movement_date <= :date AND c.closed_at IS NULL
                            AND c.movement_date > COALESCE((SELECT MAX(r.to_day) FROM bank_report r
                              WHERE r.bank_account_id = :account AND r.place IS NOT NULL), '1970-01-01')
                          UNION ALL SELECT b.amount_minor, b.bank_date FROM bank_beside_ledger b
                          WHERE b.bank_account_id = :account AND b.bank_date <= :date) x
                        """)
                .param("account", account.id().value())
                .param("date", checkDate)
                .query((r, n) -> new Moved(
                        Money.ofMinor(r.getLong("amount_minor"), account.currency()),
                        r.getObject("last_date", LocalDate.class)))
                .single();
        record Waiting(Money sum, int batches) {}
        Waiting waiting = jdbc.sql("""
                        SELECT COALESCE(SUM(c.amount_minor), 0) AS amount_minor, COUNT(DISTINCT b.id) AS batches
                        FROM batch b JOIN standing_claim c ON c.batch_id = b.id LEFT JOIN payment p ON p.claim_id = c.id
                        JOIN way_to_pay w ON w.id = b.way_id AND w.owed_account_id IS NULL
                        WHERE b.bank_account_id = :account AND b.state IN (:live) AND b.id <> :own
                          AND p.posted_entry_id IS NULL
                        """)
                .param("account", account.id().value())
                .param("live", BatchState.live().stream().map(Enum::name).toList())
                .param("own", own)
                .query((r, n) ->
                        new Waiting(Money.ofMinor(r.getLong("amount_minor"), account.currency()), r.getInt("batches")))
                .single();
        record Later(Money sum, int payments) {}
        Later later = jdbc.sql("""
                        SELECT COALESCE(SUM(p.amount_minor), 0) AS amount_minor, COUNT(*) AS items FROM payment p
                        JOIN batch b ON b.id = p.batch_id JOIN way_to_pay w ON w.id = b.way_id AND w.owed_account_id IS NULL
                        WHERE p.bank_account_id = :account AND p.ledger_date > :date AND p.posted_entry_id IS NOT NULL
                          AND p.undone_entry_id IS NULL
                        """)
                .param("account", account.id().value())
                .param("date", checkDate)
                .query((r, n) ->
                        new Later(Money.ofMinor(r.getLong("amount_minor"), account.currency()), r.getInt("items")))
                .single();
        return CashAvailable.of(new CashAvailable.Known(
                checkDate,
                ledger(account, checkDate),
                later.sum(),
                later.payments(),
                moved.sum(),
                moved.last(),
                waiting.sum(),
                waiting.batches(),
                account.floor()));
    }

    /** Locked months count by the totals kept at their lock (law L8), so that cost follows the open months. */
    private Money ledger(BankAccount account, LocalDate until) {
        return jdbc.sql("""
                        SELECT (SELECT COALESCE(SUM(t.debit_minor - t.credit_minor), 0) FROM period_lock k
                            JOIN period_total t ON t.lock_id = k.id
                            WHERE k.unlocked_at IS NULL AND k.month < :month AND t.account_id = :cash
                              AND t.currency = :currency)
                          + (SELECT COALESCE(SUM(l.debit_minor - l.credit_minor), 0) FROM period m
                            JOIN journal_entry e ON e.month = m.month AND e.ledger_date <= :until
                            JOIN journal_line l ON l.entry_id = e.id AND l.account_id = :cash AND l.currency = :currency
                            WHERE NOT (m.locked AND m.month < :month)) AS balance_minor
                        """)
                .param("month", YearMonth.from(until).toString())
                .param("until", until)
                .param("cash", account.cash().value())
                .param("currency", account.currency().getCurrencyCode())
                .query((r, n) -> Money.ofMinor(r.getLong("balance_minor"), account.currency()))
                .single();
    }
}
