package leveltally.server.demo;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.StandardBankLayouts;
import leveltally.core.exchange.ChannelKind;
import leveltally.core.exchange.StandardFile;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.practicebank.PracticeBank;
import leveltally.server.bankfiles.KeptLayouts;
import leveltally.server.clearing.BankReading;
import leveltally.server.exchange.Channels;
import leveltally.server.ledger.BankAccounts;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The statements the made-up banks sent, a month each, read as a clerk reads them. */
@Component
class DemoBank {
    private final BankReading reading;
    private final BankAccounts accounts;
    private final KeptLayouts layouts;
    private final JdbcClient jdbc;
    private final Channels channels;
    private final Map<BankAccountId, Money> balances = new HashMap<>();

    DemoBank(BankReading reading, BankAccounts accounts, KeptLayouts layouts, JdbcClient jdbc, Channels channels) {
        this.reading = reading;
        this.accounts = accounts;
        this.layouts = layouts;
        this.jdbc = jdbc;
        this.channels = channels;
    }

    /**
     * What a statement says of one day.
     *
     * @param check empty where it is none
     * @param amount below zero what went out
     */
    record Moved(LocalDate day, String check, Money amount, String text) {}

    /** Reads the statement of a month; a movement from before it came too late for its own. */
    void tell(Actor by, BankAccountId account, YearMonth month, LocalDate until, List<Moved> moved) {
        LocalDate from = month.atDay(1);
        List<Moved> inOrder = moved.stream()
                .map(one -> one.day().isBefore(from) ? new Moved(from, one.check(), one.amount(), one.text()) : one)
                .sorted(Comparator.comparing(Moved::day).thenComparing(Moved::check))
                .toList();
        Money opening = balances.computeIfAbsent(account, this::opening);
        Money balance = opening;
        List<String> lines = new ArrayList<>();
        for (Moved one : inOrder) {
            balance = balance.plus(one.amount());
            boolean out = one.amount().isNegative();
            lines.add(String.join(
                    ";",
                    one.day().toString(),
                    one.check(),
                    out ? one.amount().negated().plain() : "",
                    out ? "" : one.amount().plain(),
                    balance.plain(),
                    "",
                    one.text()));
        }
        balances.put(account, balance);
        lines.add(
                0,
                String.join(
                        ";",
                        "STATEMENT",
                        accounts.get(account).accountNumber(),
                        number(month),
                        from.toString(),
                        until.toString(),
                        opening.plain(),
                        balance.plain()));
        String text = lines.stream().map(line -> line + "\r\n").collect(Collectors.joining());
        reading.read(
                by,
                new BankReading.Sent(
                        account,
                        "statement-" + month + ".csv",
                        text.getBytes(StandardCharsets.UTF_8),
                        layout(Layout.Use.STATEMENT, ""),
                        ""));
    }

    /** From now on files go to the bank to practise on, and come from it. */
    void practise(Actor administrator, BankAccountId account) {
        channels.set(
                administrator,
                account,
                new Channels.WantedChannel(
                        ChannelKind.PRACTICE,
                        "",
                        0,
                        "",
                        null,
                        "",
                        PracticeBank.folder(accounts.get(account).accountNumber()) + "/in",
                        PracticeBank.folder(accounts.get(account).accountNumber()) + "/out",
                        StandardBankLayouts.decisionList().name(),
                        List.of(
                                new Channels.RuleView(
                                        "answer-*",
                                        StandardBankLayouts.answerList().name()),
                                new Channels.RuleView(
                                        "paid-*.txt",
                                        StandardBankLayouts.paidInColumns().name()),
                                new Channels.RuleView(
                                        "paid-*.csv",
                                        StandardBankLayouts.paidList().name()),
                                new Channels.RuleView(
                                        "statement-*.csv",
                                        StandardBankLayouts.statementList().name()),
                                new Channels.RuleView("statement-*.xml", ""),
                                new Channels.RuleView("status-*", StandardFile.STATUS_REPORT.words()),
                                new Channels.RuleView("returns-*", StandardFile.ACH_NOTICES.words())),
                        true,
                        0));
    }

    /** This morning's list of paid checks, none of which clears by itself: a figure read wrong, a voided check, no check of ours. */
    void ask(Actor by, BankAccountId account, LocalDate day) {
        record Known(long number, Money amount) {}
        Known wrong = check(account, "OUTSTANDING", Known::new);
        Known voided = check(account, "VOIDED", Known::new);
        String text = "paid on,check,amount,reference\r\n"
                + row(
                        day,
                        wrong.number(),
                        Money.ofMinor(
                                wrong.amount().minor() + 9_000, wrong.amount().currency()))
                + row(day, voided.number(), voided.amount())
                + row(day, 14_227, Money.parse("312.40", wrong.amount().currency()));
        reading.read(
                by,
                new BankReading.Sent(
                        account,
                        "paid-" + day + ".csv",
                        text.getBytes(StandardCharsets.UTF_8),
                        layout(Layout.Use.PAID_CHECKS, "comma"),
                        ""));
    }

    private static String row(LocalDate day, long number, Money amount) {
        return day + "," + number + "," + amount.plain() + ",\r\n";
    }

    private <T> T check(BankAccountId account, String state, BiFunction<Long, Money, T> as) {
        return jdbc.sql("""
                        SELECT n.number, p.amount_minor, p.currency FROM payment p JOIN check_number n ON n.live_payment_id = p.id
                        WHERE p.bank_account_id = ? AND p.state = ? ORDER BY n.number DESC LIMIT 1
                        """)
                .params(account.value(), state)
                .query((r, n) -> as.apply(
                        r.getLong("number"), Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"))))
                .single();
    }

    /** Counted from the company's first month. */
    private static String number(YearMonth month) {
        return String.valueOf(DemoCompany.FIRST.until(month, java.time.temporal.ChronoUnit.MONTHS) + 1);
    }

    private long layout(Layout.Use use, String part) {
        return layouts.toRead().stream()
                .filter(one -> one.use() == use && one.name().contains(part))
                .findFirst()
                .orElseThrow()
                .id();
    }

    /** What the account began with. */
    private Money opening(BankAccountId account) {
        var of = accounts.get(account);
        return jdbc.sql("""
                        SELECT COALESCE(SUM(l.debit_minor - l.credit_minor), 0) AS minor FROM journal_entry e
                        JOIN journal_line l ON l.entry_id = e.id WHERE e.kind = 'OPENING' AND l.account_id = ? AND l.currency = ?
                        """)
                .params(of.cash().value(), of.currency().getCurrencyCode())
                .query((r, n) -> Money.ofMinor(r.getLong("minor"), of.currency()))
                .single();
    }
}
