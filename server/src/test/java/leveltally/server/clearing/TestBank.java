package leveltally.server.clearing;

import static leveltally.server.App.bean;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import leveltally.core.bankfiles.Layout;
import leveltally.core.clearing.Answer;
import leveltally.core.clearing.ExceptionKind;
import leveltally.core.clearing.Reconciliation;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Role;
import leveltally.server.App;
import leveltally.server.bankfiles.KeptLayouts;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Periods;
import leveltally.server.posting.Posting;
import org.jspecify.annotations.Nullable;

/** A bank for tests: composes what it tells line by line, and reads, looks and answers as a clerk does. */
final class TestBank {
    static final Currency USD = Currency.getInstance("USD");
    static final LocalDate TODAY = LocalDate.of(2027, 6, 30);

    private TestBank() {}

    static Actor clerk() {
        return on(App.tomas(), TODAY);
    }

    static Actor on(Actor who, LocalDate today) {
        return new Actor(who.person(), who.name(), who.roles(), today, Instant.now(), "test");
    }

    static BankAccountId account() {
        return App.operations();
    }

    static Money usd(String amount) {
        return Money.parse(amount, USD);
    }

    /** Prints and posts a check. */
    static long check(String amount) {
        var batch = App.printed(App.invoice("Gannet Rope Walk", amount));
        bean(Posting.class).post(App.ines(), batch);
        return number(
                "SELECT n.number FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE p.batch_id = ?",
                batch.value());
    }

    static String stateOf(long check) {
        return App.jdbc()
                .sql("SELECT r.state FROM check_register r WHERE r.number = ? AND r.series_id = ?")
                .params(check, App.series())
                .query(String.class)
                .single();
    }

    /**
     * @param check 0 for what is none
     * @param amount below zero what went out
     */
    record Moved(LocalDate day, String check, String amount, String text) {
        static Moved paid(LocalDate day, long check, String amount) {
            return new Moved(day, String.valueOf(check), "-" + amount, "");
        }
    }

    private static long layout(Layout.Use use, String part) {
        return bean(KeptLayouts.class).toRead().stream()
                .filter(one -> one.use() == use && one.name().contains(part))
                .findFirst()
                .orElseThrow()
                .id();
    }

    static BankReading.BankRead list(Moved... paid) {
        StringBuilder text = new StringBuilder("paid on,check,amount,reference\r\n");
        for (Moved one : paid) {
            String amount = one.amount().startsWith("-") ? one.amount().substring(1) : "-" + one.amount();
            text.append(one.day())
                    .append(',')
                    .append(one.check())
                    .append(',')
                    .append(amount)
                    .append(",R\r\n");
        }
        return read(text.toString(), layout(Layout.Use.PAID_CHECKS, "comma"), "");
    }

    static BankReading.BankRead read(String text, long layout, String gap) {
        return bean(BankReading.class)
                .read(
                        clerk(),
                        new BankReading.Sent(
                                account(), "bank.csv", text.getBytes(StandardCharsets.UTF_8), layout, gap));
    }

    /** A statement that goes on where the last one ended. */
    static BankReading.BankRead statement(LocalDate from, LocalDate to, Moved... moved) {
        return read(statementText(from, to, closing(), moved), statements(), "");
    }

    static long statements() {
        return layout(Layout.Use.STATEMENT, "semicolons");
    }

    static String statementText(LocalDate from, LocalDate to, Money opening, Moved... moved) {
        List<String> lines = new ArrayList<>();
        Money balance = opening;
        for (Moved one : moved) {
            Money amount = usd(one.amount());
            balance = balance.plus(amount);
            boolean out = amount.isNegative();
            lines.add(one.day() + ";" + one.check() + ";"
                    + (out ? amount.negated().plain() : "") + ";" + (out ? "" : amount.plain()) + ";" + balance.plain()
                    + ";;" + one.text());
        }
        String number = String.valueOf(1
                + App.jdbc()
                        .sql(
                                "SELECT number FROM bank_report WHERE bank_account_id = ? AND place IS NOT NULL ORDER BY from_day DESC,"
                                        + " to_day DESC, place DESC LIMIT 1")
                        .param(account().value())
                        .query(Integer.class)
                        .optional()
                        .orElse(0));
        lines.add(
                0,
                "STATEMENT;" + bean(BankAccounts.class).get(account()).accountNumber() + ";" + number + ";" + from + ";"
                        + to + ";" + opening.plain() + ";" + balance.plain());
        return String.join("\r\n", lines) + "\r\n";
    }

    /** The day behind the last statement, whatever other tests told before; its month is open. */
    static LocalDate nextDay() {
        LocalDate day = App.jdbc()
                .sql("SELECT MAX(to_day) FROM bank_report WHERE bank_account_id = ? AND place IS NOT NULL")
                .param(account().value())
                .query(LocalDate.class)
                .optional()
                .filter(last -> last.isAfter(App.CHECK_DATE))
                .orElse(App.CHECK_DATE)
                .plusDays(1);
        Actor joss = App.actor("joss", Role.ADMINISTRATOR);
        for (YearMonth month = newestMonth();
                month.isBefore(YearMonth.from(day).plusMonths(2));
                month = newestMonth()) {
            bean(Periods.class).open(joss, month.plusMonths(1));
        }
        return day;
    }

    private static YearMonth newestMonth() {
        return YearMonth.parse(App.jdbc()
                .sql("SELECT MAX(month) FROM period")
                .query(String.class)
                .single());
    }

    /** Where the last statement ended, or ten million. */
    static Money closing() {
        return App.jdbc()
                .sql(
                        "SELECT closing_minor FROM bank_report WHERE bank_account_id = ? AND place IS NOT NULL ORDER BY from_day DESC, to_day DESC, place DESC"
                                + " LIMIT 1")
                .param(account().value())
                .query(Long.class)
                .optional()
                .map(minor -> Money.ofMinor(minor, USD))
                .orElse(usd("10000000.00"));
    }

    static BankExceptions.ExceptionsView open() {
        return bean(BankExceptions.class).of(clerk(), account(), null);
    }

    static BankExceptions.ExceptionView exception(String check) {
        return open().shown().stream()
                .filter(one -> one.number().equals(check))
                .findFirst()
                .orElseThrow(() -> new AssertionError("no exception of " + check));
    }

    static BankExceptions.ExceptionView exceptionOf(String text) {
        return open().shown().stream()
                .filter(one -> one.text().equals(text))
                .findFirst()
                .orElseThrow(() -> new AssertionError("no exception of " + text));
    }

    static ExceptionKind kind(long check) {
        return exception(String.valueOf(check)).kind();
    }

    static Answering.Answered answer(BankExceptions.ExceptionView one, Answer answer) {
        return answer(one, answer, null, "", List.of());
    }

    static Answering.Answered answer(
            BankExceptions.ExceptionView one,
            Answer answer,
            @Nullable AccountId against,
            String number,
            List<Answering.MatchedWith> has) {
        return bean(Answering.class)
                .answer(
                        clerk(),
                        new Answering.Given(
                                account(),
                                List.of(new Answering.SeenMovement(one.id(), one.version())),
                                answer,
                                "as the bank said",
                                against,
                                null,
                                "",
                                number,
                                has));
    }

    static AccountId expense() {
        return new AccountId(number("SELECT id FROM ledger_account WHERE code = '5200'"));
    }

    /** Bank and ledger of a day, of which nothing is left unexplained. */
    static Reconciliation reconciled(LocalDate day) {
        Reconciliation found = bean(Reconciling.class).on(clerk(), account(), day);
        assertThat(found.unexplained())
                .as(
                        "unexplained on %s: bank %s, ledger %s, %s",
                        day,
                        found.bank(),
                        found.ledger(),
                        found.sections().stream()
                                .map(one -> one.kind() + " " + one.sum())
                                .toList())
                .isEqualTo(usd("0.00"));
        return found;
    }
}
