package leveltally.server.ledger;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Comparator;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.Seal;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The bank accounts with their ways to pay, and the rows that file serials come from. */
@Service
public class BankAccounts {
    private final EntityManager entities;
    private final Seal seal;

    BankAccounts(EntityManager entities, Seal seal) {
        this.entities = entities;
        this.seal = seal;
    }

    private List<WayToPayEntity> ways(List<Long> accounts) {
        return entities.createQuery(
                        "select w from WayToPayEntity w where w.bankAccountId in :accounts order by w.position",
                        WayToPayEntity.class)
                .setParameter("accounts", accounts)
                .getResultList();
    }

    /**
     * Keeps the run a batch is made for, and the one planned after it; an earlier run moves nothing back. The row is locked
     * only when something changes, so that two batches of one run are made side by side.
     */
    @Transactional
    public void planRuns(BankAccountId id, LocalDate thisRun, @Nullable LocalDate nextRun) {
        BankAccountEntity seen = row(id, null);
        LocalDate before = seen.thisRun;
        boolean same = thisRun.equals(before) && (nextRun == null || nextRun.equals(seen.nextRun));
        if (!same && (before == null || !thisRun.isBefore(before))) {
            BankAccountEntity account = row(id, LockModeType.PESSIMISTIC_WRITE);
            account.thisRun = thisRun;
            account.nextRun = nextRun == null ? account.nextRun : nextRun;
            entities.flush();
        }
    }

    /** Main account first, closed ones too. */
    @Transactional(readOnly = true)
    public List<BankAccount> list() {
        return view(
                entities.createQuery("select a from BankAccountEntity a order by a.position", BankAccountEntity.class)
                        .getResultList());
    }

    @Transactional(readOnly = true)
    public BankAccount get(BankAccountId id) {
        return view(List.of(row(id, null))).get(0);
    }

    /** Those in which the company can pay. */
    @Transactional(readOnly = true)
    public List<Currency> currencies() {
        return list().stream()
                .filter(account -> account.closedOn() == null)
                .map(BankAccount::currency)
                .distinct()
                .sorted(Comparator.comparing(Currency::getCurrencyCode))
                .toList();
    }

    /** @throws Refusal when another account is called so; {@code but} may keep its name */
    void mustBeAnotherName(String name, @Nullable Long but) {
        if (list().stream()
                .anyMatch(other -> other.name().equalsIgnoreCase(name)
                        && (but == null || other.id().value() != but))) {
            throw Refusal.invalidField(
                    "name-taken", "name", "Another bank account is called " + name + ". Choose another name.");
        }
    }

    /** The version whoever changes the account must have seen. */
    @Transactional(readOnly = true)
    public long version(BankAccountId id) {
        return row(id, null).version;
    }

    /** Until when its bank is told which checks it returns; empty where it asks for nothing. */
    @Transactional(readOnly = true)
    public Optional<LocalTime> decisionHour(BankAccountId id) {
        return Optional.ofNullable(row(id, null).decisionHour);
    }

    /** The account with its row locked until the transaction ends: whoever takes a turn or numbers starts here. */
    @Transactional
    public BankAccount lock(BankAccountId id) {
        return view(List.of(row(id, LockModeType.PESSIMISTIC_WRITE))).get(0);
    }

    /** The serial number of the next file, used up by asking. */
    @Transactional
    public long takeFileSerial(BankAccountId id) {
        return row(id, LockModeType.PESSIMISTIC_WRITE).nextFileSerial++;
    }

    /** The first of so many numbers by which payments of an account are traced, used up by asking. */
    @Transactional
    public long takeTraces(BankAccountId id, int count) {
        BankAccountEntity account = row(id, LockModeType.PESSIMISTIC_WRITE);
        long first = account.nextTrace;
        account.nextTrace += count;
        return first;
    }

    BankAccountEntity row(BankAccountId id, @Nullable LockModeType lock) {
        BankAccountEntity account = entities.find(BankAccountEntity.class, id.value());
        if (account == null) {
            throw Refusal.notFound("no-bank-account", "There is no such bank account. Choose one from the list.");
        }
        if (lock != null) {
            entities.refresh(account, lock);
        }
        return account;
    }

    private List<BankAccount> view(List<BankAccountEntity> accounts) {
        Map<Long, List<WayToPay>> ways = ways(
                        accounts.stream().map(account -> account.id).toList())
                .stream()
                .collect(Collectors.groupingBy(
                        way -> way.bankAccountId, Collectors.mapping(BankAccounts::way, Collectors.toList())));
        return accounts.stream()
                .map(account -> view(account, ways.getOrDefault(account.id, List.of())))
                .toList();
    }

    private static WayToPay way(WayToPayEntity w) {
        Long owed = w.owedAccountId;
        Long issuer = w.issuerId;
        return new WayToPay(
                new WayId(w.id),
                w.name,
                w.method,
                w.recordedOnly,
                owed == null || issuer == null ? null : new WayToPay.Card(new AccountId(owed), new VendorId(issuer)));
    }

    private static @Nullable LayoutInForce layout(BankAccountEntity a) {
        Long now = a.layoutId;
        return now == null ? null : new LayoutInForce(now, a.nextLayoutId, a.nextLayoutFrom);
    }

    private BankAccount view(BankAccountEntity a, List<WayToPay> ways) {
        return new BankAccount(
                new BankAccountId(a.id),
                a.name,
                a.bankName,
                Currency.getInstance(a.currency),
                a.routingNumber,
                seal.open(a.accountNumberSealed),
                new AccountId(a.cashAccountId),
                a.positivePay,
                layout(a),
                Money.ofMinor(a.floorMinor, a.currency),
                Money.ofMinor(a.smallestMinor, a.currency),
                a.thisRun,
                a.nextRun,
                a.closedOn,
                ways);
    }
}
