package leveltally.server.ledger;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountKind;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.LedgerAccount;
import leveltally.core.ledger.NewBankAccount;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.Seal;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Opens, changes and closes bank accounts, and gives them their ways to pay. */
@Service
public class BankAccountSetup {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final BankAccounts accounts;
    private final Accounts ledgerAccounts;
    private final Seal seal;
    private final AuditTrail audit;

    BankAccountSetup(
            EntityManager entities,
            JdbcClient jdbc,
            BankAccounts accounts,
            Accounts ledgerAccounts,
            Seal seal,
            AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.accounts = accounts;
        this.ledgerAccounts = ledgerAccounts;
        this.seal = seal;
        this.audit = audit;
    }

    /** Opens an account behind those there are; its currency, cash and account number stand from then on. */
    @Transactional
    public BankAccountId open(Actor by, NewBankAccount wanted) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        mustBeCash(by, wanted.cash());
        mustBeAnotherName(wanted.name(), null);
        BankAccountEntity account = new BankAccountEntity();
        account.name = wanted.name();
        account.bankName = wanted.bankName();
        account.currency = wanted.currency().getCurrencyCode();
        account.routingNumber = wanted.routing().digits();
        account.accountNumberSealed = seal.seal(wanted.accountNumber());
        account.cashAccountId = wanted.cash().value();
        account.nextFileSerial = 1;
        account.position = accounts.list().size() + 1;
        entities.persist(account);
        entities.flush();
        audit.record(
                by,
                "open bank account",
                subject(account.id),
                Map.of(
                        "name",
                        account.name,
                        "bank",
                        account.bankName,
                        "currency",
                        account.currency,
                        "routing number",
                        account.routingNumber));
        return new BankAccountId(account.id);
    }

    private void mustBeCash(Actor by, AccountId cash) {
        LedgerAccount account = ledgerAccounts.all().stream()
                .filter(one -> one.id().equals(cash))
                .filter(one -> one.facts().kind() == AccountKind.CASH)
                .findFirst()
                .orElseThrow(() -> Refusal.invalidField(
                        "no-cash-account",
                        "cash",
                        "Choose an account of the ledger of the kind cash. Add one first where there is none."));
        account.mustTake(by.today());
        accounts.list().stream()
                .filter(other -> other.cash().equals(cash))
                .findFirst()
                .ifPresent(other -> {
                    throw Refusal.invalidField(
                            "cash-taken",
                            "cash",
                            account.inWords() + " keeps the cash of " + other.name()
                                    + ". Each bank account has an account of its own.");
                });
    }

    private void mustBeAnotherName(String name, @Nullable Long but) {
        if (accounts.list().stream()
                .anyMatch(other -> other.name().equalsIgnoreCase(name)
                        && (but == null || other.id().value() != but))) {
            throw Refusal.invalidField(
                    "name-taken", "name", "Another bank account is called " + name + ". Choose another name.");
        }
    }

    /**
     * What may change of an account.
     *
     * @param floor as it was typed, as is {@code smallest}
     */
    public record Wanted(
            String name,
            String bankName,
            String floor,
            String smallest,
            @Nullable LocalDate thisRun,
            @Nullable LocalDate nextRun) {}

    /** Changes an account; what was printed and told stays as it was. */
    @Transactional
    public void change(Actor by, BankAccountId id, Wanted wanted, long version) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        BankAccountEntity account = accounts.row(id, LockModeType.PESSIMISTIC_WRITE);
        mustBeSeen(account, version);
        Map<String, String> before = words(account);
        account.name = NewBankAccount.name(wanted.name());
        mustBeAnotherName(account.name, account.id);
        account.bankName = NewBankAccount.bankName(wanted.bankName());
        account.floorMinor = amount(wanted.floor(), account, "floor");
        account.smallestMinor = amount(wanted.smallest(), account, "smallest");
        if (wanted.nextRun() != null
                && wanted.thisRun() != null
                && !wanted.nextRun().isAfter(wanted.thisRun())) {
            throw Refusal.invalidField("runs", "nextRun", "The next run comes after this one. Choose a later day.");
        }
        account.thisRun = wanted.thisRun();
        account.nextRun = wanted.nextRun();
        Map<String, String> after = words(account);
        if (!after.equals(before)) {
            record(by, account, "change bank account", before, after);
        }
    }

    private static void mustBeSeen(BankAccountEntity account, long version) {
        if (account.version != version) {
            throw Refusal.conflict(
                    "changed-meanwhile",
                    "Somebody changed " + account.name + " meanwhile, or a batch moved its runs. Nothing of yours was"
                            + " saved; look at it as it is now.");
        }
    }

    private static long amount(String typed, BankAccountEntity account, String field) {
        Money amount = Money.typed(typed.isBlank() ? "0" : typed, Currency.getInstance(account.currency), field);
        if (amount.isNegative()) {
            throw Refusal.invalidField(
                    field + "-below-zero", field, "This amount cannot be below zero. Type 0 for none.");
        }
        return amount.minor();
    }

    private static Map<String, String> words(BankAccountEntity account) {
        Map<String, String> words = new TreeMap<>();
        words.put("name", account.name);
        words.put("bank", account.bankName);
        words.put("floor", Money.ofMinor(account.floorMinor, account.currency).plain());
        words.put(
                "smallest payment",
                Money.ofMinor(account.smallestMinor, account.currency).plain());
        words.put("this run", account.thisRun == null ? "" : Dates.inWords(account.thisRun));
        words.put("next run", account.nextRun == null ? "" : Dates.inWords(account.nextRun));
        return words;
    }

    private void record(
            Actor by, BankAccountEntity account, String deed, Map<String, String> before, Map<String, String> after) {
        Map<String, String> told = new TreeMap<>();
        after.forEach((field, now) -> {
            if (!now.equals(before.get(field))) {
                told.put(field, before.get(field) + " → " + now);
            }
        });
        audit.record(by, deed, subject(account.id), told);
    }

    /** Sets the cash the company keeps on an account. */
    @Transactional
    public void keepFloor(Actor by, BankAccountId id, String floor) {
        by.mayDo(Deed.SET_CASH_FLOOR);
        BankAccountEntity account = accounts.row(id, LockModeType.PESSIMISTIC_WRITE);
        Map<String, String> before = words(account);
        account.floorMinor = amount(floor, account, "floor");
        record(by, account, "keep floor", before, words(account));
    }

    /** Adds a way to pay behind those the account has. */
    @Transactional
    public WayId addWay(Actor by, BankAccountId id, String name, PaymentMethod method) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        BankAccount account = accounts.lock(id);
        account.mustBeOpen();
        String called = name.strip();
        if (called.isEmpty()
                || called.length() > 60
                || account.ways().stream().anyMatch(way -> way.name().equalsIgnoreCase(called))) {
            throw Refusal.invalidField(
                    "way-name",
                    "wayName",
                    "Give this way to pay a name of its own on this account, at most 60 characters, such as Checks.");
        }
        WayToPayEntity way = new WayToPayEntity();
        way.bankAccountId = id.value();
        way.name = called;
        way.method = method;
        way.position = account.ways().size() + 1;
        entities.persist(way);
        entities.flush();
        audit.record(by, "add way to pay", subject(id.value()), Map.of("name", called, "by", method.words()));
        return new WayId(way.id);
    }

    /** Turns positive pay on with a layout of its files, or off. */
    @Transactional
    public void positivePay(Actor by, BankAccountId id, @Nullable Long layout, String words) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        BankAccountEntity account = accounts.row(id, LockModeType.PESSIMISTIC_WRITE);
        account.positivePay = layout != null;
        account.layoutId = layout;
        audit.record(
                by,
                layout == null ? "end positive pay" : "begin positive pay",
                subject(account.id),
                Map.of("layout", words));
    }

    /**
     * Closes an account whose row is locked; what was paid from it stays.
     *
     * @param why who wants it closed, or what took its place
     */
    @Transactional
    public void close(Actor by, BankAccountId id, String why) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        BankAccountEntity account = accounts.row(id, LockModeType.PESSIMISTIC_WRITE);
        if (account.closedOn != null) {
            throw Refusal.conflict("account-closed", account.name + " is closed already.");
        }
        if (why.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why the account is closed.");
        }
        account.closedOn = by.today();
        audit.record(by, "close bank account", subject(account.id), Map.of("reason", why.strip()));
    }

    /** Adds days on which the bank does not work; a day there already gets the new name. */
    @Transactional
    public void addHolidays(Actor by, BankAccountId id, Map<LocalDate, String> days) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        accounts.lock(id);
        days.forEach((day, name) -> {
            deleteHoliday(id, day);
            jdbc.sql("INSERT INTO bank_holiday (bank_account_id, day, name) VALUES (:account, :day, :name)")
                    .param("account", id.value())
                    .param("day", day)
                    .param("name", name)
                    .update();
        });
        audit.record(
                by,
                "add holidays",
                subject(id.value()),
                Map.of(
                        "days",
                        days.keySet().stream().map(Dates::inWords).toList().toString()));
    }

    @Transactional
    public void removeHoliday(Actor by, BankAccountId id, LocalDate day) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        accounts.lock(id);
        if (deleteHoliday(id, day) == 0) {
            throw Refusal.conflict("no-holiday", Dates.inWords(day) + " is not on the list any more. Look again.");
        }
        audit.record(by, "remove holiday", subject(id.value()), Map.of("day", Dates.inWords(day)));
    }

    private int deleteHoliday(BankAccountId id, LocalDate day) {
        return jdbc.sql("DELETE FROM bank_holiday WHERE bank_account_id = :account AND day = :day")
                .param("account", id.value())
                .param("day", day)
                .update();
    }

    /** A day on which the bank does not work. */
    public record Holiday(LocalDate day, String name) {}

    /** The holidays kept of an account, from a day on. */
    @Transactional(readOnly = true)
    public List<Holiday> holidays(BankAccountId id, LocalDate from) {
        return jdbc.sql(
                        "SELECT day, name FROM bank_holiday WHERE bank_account_id = :account AND day >= :from ORDER BY day")
                .param("account", id.value())
                .param("from", from)
                .query(Holiday.class)
                .list();
    }

    private static String subject(long id) {
        return "bank account " + id;
    }
}
