package leveltally.server.ledger;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.company.FiscalYear;
import leveltally.core.ledger.TrialBalance;
import leveltally.core.money.Money;
import leveltally.server.company.Companies;
import leveltally.server.frame.CsvLists;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads the ledger: its periods, entries and balances. */
@Component
class LedgerRows {
    private static final int PAGE = 200;

    private final JdbcClient jdbc;
    private final CsvLists lists;
    private final Companies companies;

    LedgerRows(JdbcClient jdbc, CsvLists lists, Companies companies) {
        this.jdbc = jdbc;
        this.lists = lists;
        this.companies = companies;
    }

    @Transactional(readOnly = true)
    List<PeriodView> periods() {
        FiscalYear year = companies.year();
        return jdbc.sql("SELECT month, locked, closing FROM period ORDER BY month DESC")
                .query((row, n) -> {
                    YearMonth month = YearMonth.parse(row.getString("month"));
                    var period = new leveltally.core.ledger.Period(
                            month, row.getBoolean("locked"), row.getBoolean("closing"));
                    return new PeriodView(
                            month.toString(),
                            period.inWords(),
                            year.inWords(month),
                            period.locked(),
                            period.closing(),
                            period.stand());
                })
                .list();
    }

    private static final String WAIT = " FROM payment p WHERE p.posted_entry_id IS NULL AND p.standing"
            + " AND p.ledger_date BETWEEN :from AND :to";

    /** What keeps a month from being locked: payments that have their number and are not posted. */
    @Transactional(readOnly = true)
    InTheWay inTheWay(YearMonth month) {
        Map<String, Object> days = Map.of("from", month.atDay(1), "to", month.atEndOfMonth());
        long count = jdbc.sql("SELECT COUNT(*)" + WAIT)
                .params(days)
                .query(Long.class)
                .single();
        List<InTheWay.PaymentInTheWay> first = jdbc.sql("SELECT p.batch_id, p.payee, p.amount_minor, p.currency,"
                        + " (SELECT b.name FROM batch b WHERE b.id = p.batch_id) AS batch,"
                        + " (SELECT n.number FROM check_number n WHERE n.live_payment_id = p.id) AS number" + WAIT
                        + " ORDER BY p.batch_id, p.id LIMIT " + InTheWay.MOST)
                .params(days)
                .query((r, n) -> new InTheWay.PaymentInTheWay(
                        r.getLong("batch_id"),
                        r.getString("batch"),
                        r.getString("number"),
                        r.getString("payee"),
                        MoneyView.of(r.getLong("amount_minor"), r.getString("currency"))))
                .list();
        return new InTheWay(count, first);
    }

    ResponseEntity<Resource> csv(YearMonth month) {
        return lists.of("ledger-" + month + ".csv", """
                SELECT e.id AS entry, e.ledger_date, LOWER(e.kind) AS kind, e.text, a.code AS account, a.name AS account_name,
                  l.debit_minor, l.credit_minor, l.currency
                FROM journal_entry e JOIN journal_line l ON l.entry_id = e.id JOIN ledger_account a ON a.id = l.account_id
                WHERE e.month = :month ORDER BY e.ledger_date, e.id, l.id
                """, Map.of("month", month.toString()));
    }

    /**
     * Entries of a month, newest first, a page at a time.
     *
     * @param after where the page starts, as the last one said
     */
    @Transactional(readOnly = true)
    EntriesView entries(YearMonth month, @Nullable String after) {
        LocalDate afterDate = LocalDate.of(9999, 1, 1);
        long afterId = Long.MAX_VALUE;
        if (after != null && after.matches("\\d{4}-\\d{2}-\\d{2}~\\d{1,18}")) {
            afterDate = LocalDate.parse(after.substring(0, 10));
            afterId = Long.parseLong(after.substring(11));
        }
        record Row(long id, LocalDate date, String text, String kind, String by) {}
        List<Row> rows = jdbc.sql("""
                        SELECT e.id, e.ledger_date, e.text, e.kind, p.name FROM journal_entry e
                        JOIN person p ON p.id = e.made_by
                        WHERE e.month = :month AND (e.ledger_date < :date OR (e.ledger_date = :date AND e.id < :id))
                        ORDER BY e.ledger_date DESC, e.id DESC LIMIT :limit
                        """)
                .param("month", month.toString())
                .param("date", afterDate)
                .param("id", afterId)
                .param("limit", PAGE)
                .query((r, n) -> new Row(
                        r.getLong("id"),
                        r.getObject("ledger_date", LocalDate.class),
                        r.getString("text"),
                        r.getString("kind"),
                        r.getString("name")))
                .list();
        long total = jdbc.sql("SELECT COUNT(*) FROM journal_entry WHERE month = :month")
                .param("month", month.toString())
                .query(Long.class)
                .single();
        Map<Long, List<LedgerLineView>> lines = new LinkedHashMap<>();
        rows.forEach(row -> lines.put(row.id(), new ArrayList<>()));
        if (!rows.isEmpty()) {
            jdbc.sql("""
                            SELECT l.entry_id, CONCAT(a.code, ' ', a.name) AS account, l.debit_minor, l.credit_minor, l.currency
                            FROM journal_line l JOIN ledger_account a ON a.id = l.account_id
                            WHERE l.entry_id IN (:ids) ORDER BY l.id
                            """)
                    .param("ids", lines.keySet())
                    .query((r, n) -> lines.get(r.getLong("entry_id"))
                            .add(new LedgerLineView(
                                    r.getString("account"),
                                    blankZero(Money.ofMinor(r.getLong("debit_minor"), r.getString("currency"))),
                                    blankZero(Money.ofMinor(r.getLong("credit_minor"), r.getString("currency"))),
                                    r.getString("currency"))))
                    .list();
        }
        List<EntriesView.EntryView> entries = rows.stream()
                .map(r -> new EntriesView.EntryView(r.id(), r.date(), r.text(), r.kind(), r.by(), lines.get(r.id())))
                .toList();
        Row last = rows.isEmpty() ? null : rows.get(rows.size() - 1);
        return new EntriesView(
                entries, total, last == null || rows.size() < PAGE ? null : last.date() + "~" + last.id());
    }

    /** Balances at the start of a month, its movements, and the balances at its end. */
    @Transactional(readOnly = true)
    TrialBalanceView trialBalance(YearMonth month) {
        boolean locked = jdbc.sql("SELECT locked FROM period WHERE month = :month")
                .param("month", month.toString())
                .query(Boolean.class)
                .optional()
                .orElse(false);
        TrialBalance balance = TrialBalance.of(jdbc.sql("""
                        SELECT CONCAT(a.code, ' ', a.name) AS account, l.currency,
                          SUM(CASE WHEN e.month < :month THEN l.debit_minor - l.credit_minor ELSE 0 END) AS opening,
                          SUM(CASE WHEN e.month = :month THEN l.debit_minor ELSE 0 END) AS debit,
                          SUM(CASE WHEN e.month = :month THEN l.credit_minor ELSE 0 END) AS credit
                        FROM journal_line l JOIN journal_entry e ON e.id = l.entry_id
                        JOIN ledger_account a ON a.id = l.account_id
                        WHERE e.month <= :month
                        GROUP BY a.code, a.name, l.currency ORDER BY l.currency DESC, a.code
                        """)
                .param("month", month.toString())
                .query((r, n) -> new TrialBalance.Line(
                        r.getString("account"),
                        Money.ofMinor(r.getLong("opening"), r.getString("currency")),
                        Money.ofMinor(r.getLong("debit"), r.getString("currency")),
                        Money.ofMinor(r.getLong("credit"), r.getString("currency"))))
                .list());
        return new TrialBalanceView(
                month.toString(),
                locked,
                balance.lines().stream()
                        .map(line -> new TrialBalanceView.BalanceLine(
                                line.account(),
                                signed(line.opening()),
                                blankZero(line.debit()),
                                blankZero(line.credit()),
                                signed(line.closing()),
                                line.debit().currency().getCurrencyCode()))
                        .toList(),
                balance.totals().stream()
                        .map(total -> {
                            String currency = total.debit().currency().getCurrencyCode();
                            return new LedgerLineView(
                                    "Total " + currency,
                                    total.debit().toString(),
                                    total.credit().toString(),
                                    currency);
                        })
                        .toList());
    }

    private static String blankZero(Money amount) {
        return amount.isZero() ? "" : amount.toString();
    }

    private static TrialBalanceView.BalanceView signed(Money balance) {
        boolean credit = balance.isNegative();
        return new TrialBalanceView.BalanceView((credit ? balance.negated() : balance).toString(), credit);
    }
}
