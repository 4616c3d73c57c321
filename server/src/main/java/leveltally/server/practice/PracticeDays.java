package leveltally.server.practice;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.practicebank.Agreement;
import leveltally.practicebank.Mischief;
import leveltally.practicebank.PracticeBank;
import leveltally.server.bankfiles.KeptLayouts;
import leveltally.server.company.BusinessDay;
import leveltally.server.exchange.Channels;
import leveltally.server.exchange.Courier;
import leveltally.server.exchange.StandInBank;
import leveltally.server.frame.MoneyView;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.BankHolidays;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/**
 * Lets days pass at the bank to practise on. The bank hears of the company by its files alone; beside them it is told what people
 * agree on who meet: how an account begins, how files are written, and what somebody else brought to the account.
 */
@Service
public class PracticeDays {
    /** What a check was that went out and that no bank has paid. */
    private static final Set<PaymentState> UNPAID =
            EnumSet.of(PaymentState.OUTSTANDING, PaymentState.STOPPED, PaymentState.VOIDED, PaymentState.REVERSED);

    private final StandInBank standIn;
    private final Channels channels;
    private final Courier courier;
    private final BankAccounts accounts;
    private final BankHolidays holidays;
    private final KeptLayouts layouts;
    private final BusinessDay day;
    private final JdbcClient jdbc;

    PracticeDays(
            StandInBank standIn,
            Channels channels,
            Courier courier,
            BankAccounts accounts,
            BankHolidays holidays,
            KeptLayouts layouts,
            BusinessDay day,
            JdbcClient jdbc) {
        this.standIn = standIn;
        this.channels = channels;
        this.courier = courier;
        this.accounts = accounts;
        this.holidays = holidays;
        this.layouts = layouts;
        this.day = day;
        this.jdbc = jdbc;
    }

    /** Something the bank can be told to do wrong. */
    public record MischiefView(Mischief name, String words, boolean ordered) {}

    /** How the bank can write its files. */
    public record WritesView(PracticeBank.Writes name, String words, boolean chosen) {}

    /**
     * An account at the bank, as its own people see it.
     *
     * @param positivePay whether the bank hears of its checks, or pays what people bring
     * @param atTheBank null until it begins, with the first day or the first order
     */
    public record PracticeAccount(
            long id,
            String name,
            boolean positivePay,
            @Nullable PracticeStanding atTheBank,
            List<WritesView> writes,
            List<MischiefView> mischief) {}

    /** What the bank has of an account. */
    public record PracticeStanding(
            LocalDate until, MoneyView balance, long statement, int outstanding, List<String> held) {}

    /** What a day was there. */
    public record PracticeDay(LocalDate day, LocalDate today, List<String> did, int came) {}

    /** @return nothing where no account is with the bank to practise on */
    public List<PracticeAccount> look(Actor by) {
        by.mayDo(Deed.READ);
        List<PracticeAccount> found = new ArrayList<>();
        for (BankAccountId id : standIn.isThere() ? channels.practising() : List.<BankAccountId>of()) {
            found.add(view(accounts.get(id)));
        }
        return found;
    }

    private PracticeAccount view(BankAccount account) {
        Optional<PracticeBank.Look> look = standIn.bank().has(account.accountNumber())
                ? Optional.of(standIn.bank().look(account.accountNumber()))
                : Optional.empty();
        PracticeBank.Writes writes = look.map(PracticeBank.Look::writes).orElse(PracticeBank.Writes.COLUMNS_AND_CAMT);
        List<Mischief> ordered = look.map(PracticeBank.Look::ordered).orElse(List.of());
        return new PracticeAccount(
                account.id().value(),
                account.name(),
                account.positivePay(),
                look.map(one -> new PracticeStanding(
                                one.until(),
                                MoneyView.of(
                                        one.balanceMinor(), account.currency().getCurrencyCode()),
                                one.statement(),
                                one.outstanding(),
                                one.held()))
                        .orElse(null),
                Arrays.stream(PracticeBank.Writes.values())
                        .map(one -> new WritesView(one, one.words(), one == writes))
                        .toList(),
                Arrays.stream(Mischief.values())
                        .filter(one -> account.positivePay() || !one.needsFiles())
                        .map(one -> new MischiefView(one, one.words(), ordered.contains(one)))
                        .toList());
    }

    /** Says how the bank's own files are written from its next day on. */
    public void write(Actor by, BankAccountId id, PracticeBank.Writes writes) {
        by.mayDo(Deed.RECORD_CLEARING);
        BankAccount account = practising(by, id);
        standIn.bank().write(account.accountNumber(), writes);
    }

    /** Tells the bank to do something wrong on its next day on which it can, or not to. */
    public void order(Actor by, BankAccountId id, Mischief what, boolean wanted) {
        by.mayDo(Deed.RECORD_CLEARING);
        BankAccount account = practising(by, id);
        standIn.bank().order(account.accountNumber(), what, wanted);
    }

    /** Asks the bank for the papers that did not come. */
    public int ask(Actor by, BankAccountId id) {
        by.mayDo(Deed.RECORD_CLEARING);
        BankAccount account = practising(by, id);
        if (standIn.bank().ask(account.accountNumber()).isEmpty()) {
            throw Refusal.conflict("nothing-held", "The bank has sent everything it has to tell.");
        }
        return courier.look(id, Instant.now());
    }

    private BankAccount practising(Actor by, BankAccountId id) {
        if (!standIn.isThere() || !channels.practising().contains(id)) {
            throw Refusal.conflict("no-practice", "This account is not with the bank to practise on.");
        }
        BankAccount account = accounts.get(id);
        begin(account, by.today());
        return account;
    }

    /**
     * The day passes at the bank, then the company's; what the bank has to tell is fetched in between. Where it is cut off, it is
     * done again: the bank has each day once.
     */
    public PracticeDay letPass(Actor by) {
        by.mayDo(Deed.RECORD_CLEARING);
        List<BankAccountId> practising = channels.practising();
        if (!standIn.isThere() || practising.isEmpty()) {
            throw Refusal.conflict("no-practice", "No account is with the bank to practise on.");
        }
        LocalDate today = by.today();
        LocalDate next = holidays.of(practising.get(0)).onOrAfter(today.plusDays(1));
        courier.carry(Instant.now());
        List<String> did = new ArrayList<>();
        int came = 0;
        for (BankAccountId id : practising) {
            BankAccount account = accounts.get(id);
            begin(account, by.today());
            broughtByOthers(account, today);
            if (account.positivePay()) {
                standIn.bank()
                        .agree(
                                account.accountNumber(),
                                layouts.described(
                                        Objects.requireNonNull(account.layout()).on(today)));
            } else {
                standIn.bank().handedOut(account.accountNumber(), handedOut(account));
            }
            did.addAll(standIn.bank().letPass(account.accountNumber(), today).did());
            came += courier.look(id, Instant.now());
        }
        day.goOn(by, next);
        return new PracticeDay(today, next, did, came);
    }

    /** What the bank has of an account that begins there: what it told, and what it was told in files it took. */
    private void begin(BankAccount account, LocalDate today) {
        if (standIn.bank().has(account.accountNumber())) {
            return;
        }
        record Last(long number, LocalDate until, long balance) {}
        Last last = jdbc.sql("SELECT number, to_day, closing_minor FROM bank_report WHERE bank_account_id = ?"
                        + " AND place IS NOT NULL ORDER BY from_day DESC, to_day DESC, place DESC LIMIT 1")
                .param(account.id().value())
                .query((r, n) -> new Last(
                        r.getString("number").matches("\\d{1,15}") ? r.getLong("number") : 0,
                        r.getObject("to_day", LocalDate.class),
                        r.getLong("closing_minor")))
                .optional()
                .orElseGet(() -> new Last(0, today.minusDays(1), 0));
        List<Agreement.Moved> untold = jdbc.sql("""
                        SELECT m.bank_date, COALESCE(m.number, 0) AS number, m.amount_minor, m.text FROM bank_movement m
                        JOIN bank_report r ON r.id = m.report_id AND r.place IS NULL
                        WHERE m.bank_account_id = ? AND m.bank_date > ? AND m.bank_date <= ? ORDER BY m.bank_date, m.id
                        """)
                .params(account.id().value(), last.until(), today)
                .query((r, n) -> new Agreement.Moved(
                        r.getObject("bank_date", LocalDate.class),
                        r.getLong("number"),
                        r.getLong("amount_minor"),
                        r.getString("text").isEmpty() ? "Check paid" : r.getString("text")))
                .list();
        var paid = untold.stream().map(Agreement.Moved::check).collect(Collectors.toSet());
        List<Agreement.Known> known = (account.positivePay() ? told(account) : handedOut(account))
                .stream().filter(one -> !paid.contains(one.number())).toList();
        standIn.bank()
                .open(new Agreement(
                        account.accountNumber(),
                        account.currency().getCurrencyCode(),
                        account.currency().getDefaultFractionDigits(),
                        last.balance(),
                        last.number(),
                        last.until(),
                        known,
                        untold));
    }

    /** Checks the bank knows of by files it took, and that it has not paid. */
    private List<Agreement.Known> told(BankAccount account) {
        return jdbc.sql("""
                        SELECT n.number, e.amount_minor, v.id IS NOT NULL AS voided FROM bank_event e
                        JOIN check_number n ON n.id = e.check_number_id JOIN payment p ON p.id = n.payment_id
                        JOIN bank_file f ON f.id = e.file_id AND f.state = 'ACCEPTED'
                        LEFT JOIN (bank_event v JOIN bank_file g ON g.id = v.file_id AND g.state = 'ACCEPTED')
                          ON v.check_number_id = e.check_number_id AND v.kind = 'VOID'
                        WHERE e.bank_account_id = ? AND e.kind = 'ISSUE' AND p.state <> 'CLEARED' ORDER BY n.number
                        """)
                .param(account.id().value())
                .query(PracticeDays::known)
                .list();
    }

    /** Checks that went out and are not paid; nobody brings one that came back or was stopped. */
    private List<Agreement.Known> handedOut(BankAccount account) {
        return jdbc.sql("""
                        SELECT n.number, p.amount_minor, p.state <> :out AS voided FROM check_number n
                        JOIN payment p ON p.id = n.payment_id
                        WHERE p.bank_account_id = :account AND p.state IN (:unpaid) ORDER BY n.number
                        """)
                .param("out", PaymentState.OUTSTANDING.name())
                .param("account", account.id().value())
                .param("unpaid", UNPAID.stream().map(PaymentState::name).toList())
                .query(PracticeDays::known)
                .list();
    }

    private static Agreement.Known known(ResultSet r, int n) throws SQLException {
        return new Agreement.Known(r.getLong("number"), r.getLong("amount_minor"), r.getBoolean("voided"));
    }

    /** What the ledger has and the bank has not told: takings, fees, payments without a number. */
    private void broughtByOthers(BankAccount account, LocalDate until) {
        record Brought(long entry, Agreement.Moved moved) {}
        jdbc.sql("""
                        SELECT t.entry_id, t.ledger_date, t.text, t.moved_minor FROM bank_in_transit t
                        JOIN journal_entry e ON e.id = t.entry_id AND (e.kind IN ('BANK', 'REFUND') OR t.payment_id IS NOT NULL)
                        WHERE t.bank_account_id = ? AND t.ledger_date <= ?
                          -- what a file orders the bank hears of by that file
                          AND NOT EXISTS (SELECT 1 FROM electronic_item i WHERE i.payment_id = t.payment_id)
                        ORDER BY t.ledger_date, t.entry_id
                        """)
                .params(account.id().value(), until)
                .query((r, n) -> new Brought(
                        r.getLong("entry_id"),
                        new Agreement.Moved(
                                r.getObject("ledger_date", LocalDate.class),
                                0,
                                r.getLong("moved_minor"),
                                r.getString("text"))))
                .list()
                .forEach(
                        one -> standIn.bank().bring(account.accountNumber(), String.valueOf(one.entry()), one.moved()));
    }
}
