package leveltally.server.ledger;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountKind;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.LedgerAccount;
import leveltally.core.ledger.NewBankAccount;
import leveltally.core.ledger.WayId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.Seal;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Opens, changes and closes bank accounts, and gives them their ways to pay. */
@Service
public class BankAccountSetup {
    private final EntityManager entities;
    private final BankAccounts accounts;
    private final Accounts ledgerAccounts;
    private final Seal seal;
    private final AuditTrail audit;

    BankAccountSetup(
            EntityManager entities, BankAccounts accounts, Accounts ledgerAccounts, Seal seal, AuditTrail audit) {
        this.entities = entities;
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
        accounts.mustBeAnotherName(wanted.name(), null);
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

    /**
     * A way to pay as it is wanted.
     *
     * @param recordedOnly what is paid this way is made elsewhere and recorded here
     */
    public record WantedWay(String name, PaymentMethod method, boolean recordedOnly) {}

    /** Adds a way to pay behind those the account has. */
    @Transactional
    public WayId addWay(Actor by, BankAccountId id, WantedWay wanted) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        if (wanted.method() == PaymentMethod.CARD) {
            throw Refusal.invalidField(
                    "card-of-nobody",
                    "method",
                    "A company card needs its issuer and the account of what is owed to it.");
        }
        return add(by, id, wanted, null);
    }

    /** Adds a company card, whose payments are owed to its issuer instead of leaving the account's cash. */
    @Transactional
    public WayId addCard(Actor by, BankAccountId id, String name, WayToPay.Card card) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        LedgerAccount owed = ledgerAccounts.all().stream()
                .filter(one -> one.id().equals(card.owed()))
                .filter(one -> one.facts().kind() == AccountKind.LIABILITY)
                .findFirst()
                .orElseThrow(
                        () -> Refusal.invalidField(
                                "no-owed-account",
                                "owed",
                                "Choose an account of the ledger of the kind “other liability”, for what is owed to the card's issuer."));
        owed.mustTake(by.today());
        return add(by, id, new WantedWay(name, PaymentMethod.CARD, true), card);
    }

    private WayId add(Actor by, BankAccountId id, WantedWay wanted, WayToPay.@Nullable Card card) {
        BankAccount account = accounts.lock(id);
        account.mustBeOpen();
        String called = wanted.name().strip();
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
        way.method = wanted.method();
        way.position = account.ways().size() + 1;
        way.recordedOnly = wanted.recordedOnly();
        if (card != null) {
            way.owedAccountId = card.owed().value();
            way.issuerId = card.issuer().value();
        }
        entities.persist(way);
        entities.flush();
        audit.record(
                by,
                "add way to pay",
                subject(id.value()),
                Map.of("name", called, "by", wanted.method().words()));
        return new WayId(way.id);
    }

    /** Turns positive pay on with a layout of its files, or off. */
    @Transactional
    public void positivePay(Actor by, BankAccountId id, @Nullable Long layout, String words) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        BankAccountEntity account = accounts.row(id, LockModeType.PESSIMISTIC_WRITE);
        account.positivePay = layout != null;
        account.layoutId = layout;
        account.nextLayoutId = null;
        account.nextLayoutFrom = null;
        audit.record(
                by,
                layout == null ? "end positive pay" : "begin positive pay",
                subject(account.id),
                Map.of("layout", words));
    }

    /** Another layout takes the place of the one in force from a day on; one that was to come before is forgotten. */
    @Transactional
    public void layoutFrom(Actor by, BankAccountId id, long layout, LocalDate from, String words) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        BankAccountEntity account = accounts.row(id, LockModeType.PESSIMISTIC_WRITE);
        Long now = account.layoutId;
        if (now == null) {
            throw Refusal.conflict("no-positive-pay", account.name + " has no layout yet. Begin with one today.");
        }
        account.layoutId = new LayoutInForce(now, account.nextLayoutId, account.nextLayoutFrom).on(by.today());
        account.nextLayoutId = layout;
        account.nextLayoutFrom = from;
        audit.record(by, "plan bank layout", subject(account.id), Map.of("layout", words, "from", from.toString()));
    }

    /**
     * Says until when the bank is told which checks it returns.
     *
     * @param typed such as {@code 14:00}; empty for a bank that asks for nothing
     */
    @Transactional
    public void decideBefore(Actor by, BankAccountId id, String typed) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        LocalTime hour = null;
        try {
            hour = typed.isBlank() ? null : LocalTime.parse(typed.strip());
        } catch (DateTimeException noHour) {
            throw Refusal.invalidField("no-hour", "hour", "Type the hour so: 14:00. Leave it empty for none.");
        }
        BankAccountEntity account = accounts.row(id, LockModeType.PESSIMISTIC_WRITE);
        account.decisionHour = hour;
        audit.record(
                by, "set hour of decisions", subject(account.id), Map.of("hour", hour == null ? "" : hour.toString()));
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

    private static String subject(long id) {
        return "bank account " + id;
    }
}
