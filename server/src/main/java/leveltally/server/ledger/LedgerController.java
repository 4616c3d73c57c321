package leveltally.server.ledger;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Csv;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Needs;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The ledger to read, and its periods to lock. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class LedgerController {
    static final int PAGE = 200;

    private final JdbcClient jdbc;
    private final Ledger ledger;
    private final BankAccounts accounts;
    private final leveltally.server.frame.CsvLists lists;

    LedgerController(JdbcClient jdbc, Ledger ledger, BankAccounts accounts, leveltally.server.frame.CsvLists lists) {
        this.jdbc = jdbc;
        this.ledger = ledger;
        this.accounts = accounts;
        this.lists = lists;
    }

    @Schema(requiredProperties = {"id", "name", "bankName", "currency", "positivePay", "floor", "ways"})
    record BankAccountView(
            long id,
            String name,
            String bankName,
            String currency,
            boolean positivePay,
            String floor,
            List<WayView> ways) {}

    @Schema(requiredProperties = {"id", "name", "method", "words"})
    record WayView(long id, String name, String method, String words) {}

    @Schema(requiredProperties = {"month", "name", "locked"})
    record PeriodView(String month, String name, boolean locked) {}

    @Schema(requiredProperties = {"account", "debit", "credit", "currency"})
    record LedgerLineView(String account, String debit, String credit, String currency) {}

    @Schema(requiredProperties = {"id", "date", "text", "kind", "by", "lines"})
    record EntryView(long id, LocalDate date, String text, String kind, String by, List<LedgerLineView> lines) {}

    /** {@code next} is where the following page starts; absent on the last one. */
    @Schema(requiredProperties = {"entries", "total"})
    record EntriesView(
            List<EntryView> entries,
            long total,
            @org.jspecify.annotations.Nullable String next) {}

    @Schema(requiredProperties = {"month", "locked", "lines", "totals"})
    record TrialBalanceView(String month, boolean locked, List<BalanceLine> lines, List<LedgerLineView> totals) {}

    /** A debit balance, or a credit one. */
    @Schema(requiredProperties = {"text", "credit"})
    record BalanceView(String text, boolean credit) {}

    @Schema(requiredProperties = {"account", "opening", "debit", "credit", "closing", "currency"})
    record BalanceLine(
            String account, BalanceView opening, String debit, String credit, BalanceView closing, String currency) {}

    record Reason(@NotNull @Size(max = 300) String reason) {}

    @GetMapping("/bank-accounts")
    List<BankAccountView> bankAccounts(Actor by) {
        by.mayDo(Deed.READ);
        return accounts.list().stream()
                .map(a -> new BankAccountView(
                        a.id().value(),
                        a.name(),
                        a.bankName(),
                        a.currency().getCurrencyCode(),
                        a.positivePay(),
                        a.floor().toString(),
                        a.ways().stream()
                                .map(w -> new WayView(
                                        w.id().value(),
                                        w.name(),
                                        w.method().name(),
                                        w.method().words()))
                                .toList()))
                .toList();
    }

    record Floor(@NotNull @Size(max = 30) String floor) {}

    record Movement(
            @NotNull LocalDate date,
            @NotNull @Size(max = 120) String text,
            @NotNull @Size(max = 30) String amount) {}

    @PostMapping("/bank-accounts/{id}/floor")
    @Needs(Deed.SET_CASH_FLOOR)
    void floor(Actor by, @PathVariable long id, @Valid @RequestBody Floor wanted) {
        accounts.keepFloor(by, new leveltally.core.ledger.BankAccountId(id), wanted.floor());
    }

    @PostMapping("/bank-accounts/{id}/movements")
    @Needs(Deed.BRING_IN_CASH)
    void movement(Actor by, @PathVariable long id, @Valid @RequestBody Movement wanted) {
        accounts.bringInMovement(
                by, new leveltally.core.ledger.BankAccountId(id), wanted.date(), wanted.text(), wanted.amount());
    }

    record MovementClosed(@NotNull @Size(max = 200) String why) {}

    /** The ledger has a cash movement by now. */
    @PostMapping("/bank-accounts/{id}/movements/{movement}/close")
    @Needs(Deed.BRING_IN_CASH)
    void close(
            Actor by, @PathVariable long id, @PathVariable long movement, @Valid @RequestBody MovementClosed wanted) {
        accounts.closeMovement(by, new leveltally.core.ledger.BankAccountId(id), movement, wanted.why());
    }

    @GetMapping("/ledger-accounts")
    List<Ledger.AccountChoice> ledgerAccounts(Actor by) {
        by.mayDo(Deed.READ);
        return ledger.accounts();
    }

    @GetMapping("/periods")
    List<PeriodView> periods(Actor by) {
        by.mayDo(Deed.READ);
        return jdbc.sql("SELECT month, locked FROM period ORDER BY month DESC")
                .query((row, n) -> {
                    YearMonth month = YearMonth.parse(row.getString(1));
                    var period = new leveltally.core.ledger.Period(month, row.getBoolean(2));
                    return new PeriodView(month.toString(), period.inWords(), period.locked());
                })
                .list();
    }

    @PostMapping("/periods/{month}/lock")
    @Needs(Deed.LOCK_PERIOD)
    void lock(Actor by, @PathVariable String month) {
        ledger.lock(by, parsed(month));
    }

    @PostMapping("/periods/{month}/unlock")
    @Needs(Deed.LOCK_PERIOD)
    void unlock(Actor by, @PathVariable String month, @Valid @RequestBody Reason reason) {
        ledger.unlock(by, parsed(month), reason.reason());
    }

    /** The entries of a month as CSV, line by line. */
    @GetMapping(value = "/ledger/{month}/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> csv(Actor by, @PathVariable String month) {
        by.mayDo(Deed.READ);
        return lists.of(
                "ledger-" + parsed(month) + ".csv",
                """
                SELECT e.id AS entry, e.ledger_date, LOWER(e.kind) AS kind, e.text, a.code AS account, a.name AS account_name,
                  l.debit_minor, l.credit_minor, l.currency
                FROM journal_entry e JOIN journal_line l ON l.entry_id = e.id JOIN ledger_account a ON a.id = l.account_id
                WHERE e.month = :month ORDER BY e.ledger_date, e.id, l.id
                """,
                Map.of("month", parsed(month).toString()));
    }

    /** Entries of a month, newest first, a page at a time. */
    @GetMapping("/ledger/{month}/entries")
    EntriesView entries(Actor by, @PathVariable String month, @RequestParam(required = false) String after) {
        by.mayDo(Deed.READ);
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
                .param("month", parsed(month).toString())
                .param("date", afterDate)
                .param("id", afterId)
                .param("limit", PAGE)
                .query((r, n) -> new Row(
                        r.getLong(1), r.getObject(2, LocalDate.class), r.getString(3), r.getString(4), r.getString(5)))
                .list();
        long total = jdbc.sql("SELECT COUNT(*) FROM journal_entry WHERE month = :month")
                .param("month", month)
                .query(Long.class)
                .single();
        Map<Long, List<LedgerLineView>> lines = new LinkedHashMap<>();
        rows.forEach(row -> lines.put(row.id(), new ArrayList<>()));
        if (!rows.isEmpty()) {
            jdbc.sql("""
                            SELECT l.entry_id, CONCAT(a.code, ' ', a.name), l.debit_minor, l.credit_minor, l.currency
                            FROM journal_line l JOIN ledger_account a ON a.id = l.account_id
                            WHERE l.entry_id IN (:ids) ORDER BY l.id
                            """)
                    .param("ids", lines.keySet())
                    .query((r, n) -> lines.get(r.getLong(1))
                            .add(new LedgerLineView(
                                    r.getString(2),
                                    blankZero(r.getLong(3), r.getString(5)),
                                    blankZero(r.getLong(4), r.getString(5)),
                                    r.getString(5))))
                    .list();
        }
        List<EntryView> entries = rows.stream()
                .map(r -> new EntryView(r.id(), r.date(), r.text(), r.kind(), r.by(), lines.get(r.id())))
                .toList();
        Row last = rows.isEmpty() ? null : rows.get(rows.size() - 1);
        return new EntriesView(
                entries, total, last == null || rows.size() < PAGE ? null : last.date() + "~" + last.id());
    }

    /** Balances at the start of a month, its movements, and the balances at its end. */
    @GetMapping("/ledger/{month}/trial-balance")
    TrialBalanceView trialBalance(Actor by, @PathVariable String month) {
        by.mayDo(Deed.READ);
        YearMonth wanted = parsed(month);
        boolean locked = jdbc.sql("SELECT locked FROM period WHERE month = :month")
                .param("month", wanted.toString())
                .query(Boolean.class)
                .optional()
                .orElse(false);
        record Sums(String account, String currency, long opening, long debit, long credit) {}
        List<Sums> sums = jdbc.sql("""
                        SELECT CONCAT(a.code, ' ', a.name), l.currency,
                          SUM(CASE WHEN e.month < :month THEN l.debit_minor - l.credit_minor ELSE 0 END),
                          SUM(CASE WHEN e.month = :month THEN l.debit_minor ELSE 0 END),
                          SUM(CASE WHEN e.month = :month THEN l.credit_minor ELSE 0 END)
                        FROM journal_line l JOIN journal_entry e ON e.id = l.entry_id
                        JOIN ledger_account a ON a.id = l.account_id
                        WHERE e.month <= :month
                        GROUP BY a.code, a.name, l.currency ORDER BY l.currency DESC, a.code
                        """)
                .param("month", wanted.toString())
                .query((r, n) -> new Sums(r.getString(1), r.getString(2), r.getLong(3), r.getLong(4), r.getLong(5)))
                .list();
        Map<String, long[]> totals = new LinkedHashMap<>();
        List<BalanceLine> lines = new ArrayList<>();
        for (Sums s : sums) {
            long closing = s.opening() + s.debit() - s.credit();
            lines.add(new BalanceLine(
                    s.account(),
                    signed(s.opening(), s.currency()),
                    blankZero(s.debit(), s.currency()),
                    blankZero(s.credit(), s.currency()),
                    signed(closing, s.currency()),
                    s.currency()));
            long[] total = totals.computeIfAbsent(s.currency(), none -> new long[2]);
            total[0] += s.debit();
            total[1] += s.credit();
        }
        List<LedgerLineView> totalLines = totals.entrySet().stream()
                .map(t -> new LedgerLineView(
                        "Total " + t.getKey(),
                        MoneyView.of(t.getValue()[0], t.getKey()).text(),
                        MoneyView.of(t.getValue()[1], t.getKey()).text(),
                        t.getKey()))
                .toList();
        return new TrialBalanceView(wanted.toString(), locked, lines, totalLines);
    }

    private static String blankZero(long minor, String currency) {
        return minor == 0 ? "" : MoneyView.of(minor, currency).text();
    }

    private static BalanceView signed(long minor, String currency) {
        return new BalanceView(MoneyView.of(Math.abs(minor), currency).text(), minor < 0);
    }

    private static YearMonth parsed(String month) {
        if (!month.matches("\\d{4}-(0[1-9]|1[0-2])")) {
            throw Refusal.notFound("no-period", "There is no period “" + month + "”. Choose one from the list.");
        }
        return YearMonth.parse(month);
    }
}
