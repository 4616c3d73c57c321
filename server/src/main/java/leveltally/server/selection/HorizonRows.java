package leveltally.server.selection;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import leveltally.core.selection.Candidate;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Horizon;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The coming weeks of one bank account: sums by day from the database, living discounts one by one. */
@Service
class HorizonRows {
    private static final String OPEN = """
            FROM invoice i JOIN vendor v ON v.id = i.vendor_id AND v.method = :method
            LEFT JOIN reservation r ON r.invoice_id = i.id
            WHERE i.is_open = 1 AND i.kind = 'INVOICE' AND i.currency = :currency AND r.invoice_id IS NULL
            """;

    private final JdbcClient jdbc;
    private final Due due;
    private final Cash cash;
    private final BankAccounts accounts;

    HorizonRows(JdbcClient jdbc, Due due, Cash cash, BankAccounts accounts) {
        this.jdbc = jdbc;
        this.due = due;
        this.cash = cash;
        this.accounts = accounts;
    }

    @Transactional(readOnly = true)
    Horizon of(DueQuestion question, int days, LocalDate today) {
        Criteria criteria = due.criteria(question, today);
        BankAccount account = accounts.get(question.bankAccount());
        LocalDate next = criteria.nextRun();
        int between = next == null
                ? 7
                : Math.max(1, (int) criteria.checkDate().until(next, java.time.temporal.ChronoUnit.DAYS));
        LocalDate first = criteria.checkDate().isBefore(today) ? today : criteria.checkDate();
        Horizon.Plan plan = new Horizon.Plan(
                today,
                days,
                first,
                between,
                criteria.graceDays(),
                cash.available(account, first, 0).available());
        Money none = Money.zero(account.currency());
        LocalDate living = today.minusDays(criteria.graceDays());
        Map<LocalDate, Horizon.Due> byDay = new HashMap<>();
        params(
                        jdbc.sql("SELECT i.due_date, COUNT(*) AS items, SUM(i.open_minor) AS open_minor " + OPEN
                                + " AND i.due_date < :until AND (i.discount_date IS NULL OR i.discount_date < :living)"
                                + " GROUP BY i.due_date"),
                        criteria)
                .param("until", today.plusDays(days))
                .param("living", living)
                .query((r, n) -> byDay.put(
                        r.getObject("due_date", LocalDate.class),
                        new Horizon.Due(r.getInt("items"), Money.ofMinor(r.getLong("open_minor"), account.currency()))))
                .list();
        List<OpenInvoice> discounts = params(jdbc.sql(CandidateRows.COLUMNS + """
                                FROM invoice i JOIN vendor v ON v.id = i.vendor_id AND v.method = :method
                                JOIN remit_to t ON t.id = i.remit_to_id
                                LEFT JOIN reservation r ON r.invoice_id = i.id LEFT JOIN batch b ON b.id = r.batch_id
                                WHERE i.is_open = 1 AND i.kind = 'INVOICE' AND i.currency = :currency
                                  AND r.invoice_id IS NULL AND i.discount_date >= :living AND i.discount_date < :until
                                """), criteria)
                .param("until", today.plusDays(days))
                .param("living", living)
                .query(CandidateRows.mapper())
                .list()
                .stream()
                .map(Candidate::invoice)
                .toList();
        return Horizon.of(plan, byDay, discounts, none);
    }

    private static JdbcClient.StatementSpec params(JdbcClient.StatementSpec sql, Criteria criteria) {
        return sql.param("method", criteria.method().name())
                .param("currency", criteria.currency().getCurrencyCode());
    }
}
