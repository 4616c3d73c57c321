package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;

/**
 * The laws as of each day by itself, against what a slow replay up to that day says. What has no days, such as who approved,
 * is the proof's to ask.
 */
final class AsOfEveryDay {
    private static final LocalDate FROM = LocalDate.of(2026, 10, 31);

    private AsOfEveryDay() {}

    static void agrees(String when) {
        for (LocalDate day = FROM; !day.isAfter(App.CHECK_DATE); day = day.plusDays(1)) {
            String on = when + ", as of " + day;
            balances(on, day);
            openItemsAreTheLedgers(on, day);
            paymentsAreTheLedgers(on, day);
            numbersAreWhatTheyCarry(on, day);
        }
    }

    private static long sum(String sql, Object... params) {
        return App.number(sql, params);
    }

    /** L1: whatever was written up to that day balances, currency by currency. */
    private static void balances(String on, LocalDate day) {
        assertThat(none(
                        "SELECT CONCAT(l.currency, ' is off by ', SUM(l.debit_minor) - SUM(l.credit_minor)) FROM journal_line l"
                                + " JOIN journal_entry e ON e.id = l.entry_id WHERE e.ledger_date <= ? GROUP BY l.currency"
                                + " HAVING SUM(l.debit_minor) <> SUM(l.credit_minor)",
                        day))
                .as(on)
                .isEmpty();
    }

    /** L2, L11: between nothing and all of it is open on each document; together they are what the ledger says. */
    private static void openItemsAreTheLedgers(String on, LocalDate day) {
        assertThat(none("""
                        SELECT CONCAT(x.reference, ' is open at ', x.open, ' of ', x.amount_minor) FROM (
                          SELECT i.reference, i.amount_minor, i.amount_minor - COALESCE((SELECT SUM(s.amount_minor) FROM settlement s
                            WHERE s.invoice_id = i.id AND s.ledger_date <= ?), 0) AS open
                          FROM invoice i WHERE i.ledger_date <= ?) x WHERE x.open < 0 OR x.open > x.amount_minor
                        """, day, day)).as(on).isEmpty();
        for (String account : List.of("2000", "1400")) {
            long open = sum("""
                    SELECT COALESCE(SUM(CASE i.kind WHEN 'INVOICE' THEN 1 ELSE -1 END * (i.amount_minor
                      - COALESCE((SELECT SUM(s.amount_minor) FROM settlement s WHERE s.invoice_id = i.id AND s.ledger_date <= ?), 0))), 0)
                    FROM invoice i JOIN ledger_account a ON a.id = i.payables_account_id AND a.code = ?
                    WHERE i.ledger_date <= ? AND i.currency = 'USD'
                    """, day, account, day);
            long ledger = sum(
                    "SELECT COALESCE(SUM(l.credit_minor - l.debit_minor), 0) FROM journal_line l JOIN journal_entry e"
                            + " ON e.id = l.entry_id JOIN ledger_account a ON a.id = l.account_id AND a.code = ?"
                            + " WHERE e.ledger_date <= ? AND l.currency = 'USD'",
                    account,
                    day);
            assertThat(open).as(on + ", account " + account).isEqualTo(ledger);
        }
    }

    /** L4: what payments and their undoing moved on cash is what stands of them; their histories say the same. */
    private static void paymentsAreTheLedgers(String on, LocalDate day) {
        long standing = sum("""
                SELECT COALESCE(SUM(p.amount_minor), 0) FROM payment p JOIN journal_entry e ON e.id = p.posted_entry_id
                JOIN batch b ON b.id = p.batch_id AND b.method <> 'CARD'
                LEFT JOIN journal_entry u ON u.id = p.undone_entry_id
                WHERE p.currency = 'USD' AND e.ledger_date <= ? AND (u.id IS NULL OR u.ledger_date > ?)
                """, day, day);
        long moved = sum("""
                SELECT COALESCE(SUM(l.credit_minor - l.debit_minor), 0) FROM journal_line l
                JOIN ledger_account a ON a.id = l.account_id AND a.kind = 'CASH'
                JOIN journal_entry e ON e.id = l.entry_id AND e.kind IN ('PAYMENT', 'VOID')
                WHERE l.currency = 'USD' AND e.ledger_date <= ?
                """, day);
        assertThat(standing).as(on + ", cash").isEqualTo(moved);
        assertThat(none("""
                        SELECT CONCAT(p.payee, ' is ', COALESCE(x.to_state, 'nothing')) FROM payment p
                        LEFT JOIN journal_entry e ON e.id = p.posted_entry_id LEFT JOIN journal_entry u ON u.id = p.undone_entry_id
                        LEFT JOIN payment_event x ON x.payment_id = p.id AND x.step = (SELECT MAX(y.step) FROM payment_event y
                          WHERE y.payment_id = p.id AND y.business_date <= ?)
                        WHERE (COALESCE(e.ledger_date <= ?, FALSE) AND NOT COALESCE(u.ledger_date <= ?, FALSE))
                          <> (COALESCE(x.to_state, '') IN ('OUTSTANDING', 'STOPPED', 'CLEARED'))
                        """, day, day, day)).as(on).isEmpty();
    }

    /** L3: no number carries two payments that stand on that day. */
    private static void numbersAreWhatTheyCarry(String on, LocalDate day) {
        assertThat(none("""
                        SELECT CONCAT('Number ', n.number, ' carries ', COUNT(*)) FROM check_number n
                        JOIN payment p ON p.id IN (n.payment_id, n.live_payment_id)
                        JOIN journal_entry e ON e.id = p.posted_entry_id AND e.ledger_date <= ?
                        LEFT JOIN journal_entry u ON u.id = p.undone_entry_id
                        WHERE u.id IS NULL OR u.ledger_date > ? GROUP BY n.id, n.number HAVING COUNT(*) > 1
                        """, day, day)).as(on).isEmpty();
    }

    private static List<String> none(String sql, Object... params) {
        return App.jdbc().sql(sql).params(params).query(String.class).list();
    }
}
