package leveltally.server.ledger;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
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

/** The bank accounts with their ways to pay, and the rows that file serials come from. */
@Service
public class BankAccounts {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final AuditTrail audit;
    private final Seal seal;

    BankAccounts(EntityManager entities, JdbcClient jdbc, AuditTrail audit, Seal seal) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.audit = audit;
        this.seal = seal;
    }

    @Transactional
    public BankAccountId add(BankAccount wanted) {
        new leveltally.core.ledger.RoutingNumber(wanted.routingNumber());
        BankAccountEntity account = new BankAccountEntity();
        account.name = wanted.name();
        account.bankName = wanted.bankName();
        account.currency = wanted.currency().getCurrencyCode();
        account.routingNumber = wanted.routingNumber();
        account.accountNumberSealed = seal.seal(wanted.accountNumber());
        account.cashAccountId = wanted.cash().value();
        account.discountAccountId = wanted.discountsTaken().value();
        account.positivePay = wanted.positivePay();
        account.layoutId = wanted.layout();
        account.floorMinor = wanted.floor().minor();
        account.thisRun = wanted.thisRun();
        account.nextRun = wanted.nextRun();
        account.nextFileSerial = 1;
        account.position = list().size() + 1;
        entities.persist(account);
        return new BankAccountId(account.id);
    }

    /** Adds a way to pay behind those the account has. */
    @Transactional
    public WayId addWay(BankAccountId id, String name, PaymentMethod method) {
        WayToPayEntity way = new WayToPayEntity();
        way.bankAccountId = row(id, null).id;
        way.name = name;
        way.method = method;
        way.position = ways(List.of(way.bankAccountId)).size() + 1;
        entities.persist(way);
        return new WayId(way.id);
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

    /** Sets the cash the company keeps on an account. */
    @Transactional
    public void keepFloor(Actor by, BankAccountId id, String floor) {
        by.mayDo(Deed.SET_CASH_FLOOR);
        BankAccountEntity account = row(id, LockModeType.PESSIMISTIC_WRITE);
        Money amount = Money.typed(floor, Currency.getInstance(account.currency), "floor");
        if (amount.isNegative()) {
            throw Refusal.invalidField("floor-below-zero", "floor", "The floor cannot be below zero. Type 0 for none.");
        }
        Money before = Money.ofMinor(account.floorMinor, account.currency);
        account.floorMinor = amount.minor();
        audit.record(
                by,
                "keep floor",
                "bank account " + account.id,
                Map.of("before", before.plain(), "after", amount.plain()));
    }

    /** Brings in a receipt or charge of the bank that the ledger does not know yet; the same one twice is refused. */
    @Transactional
    public void bringInMovement(Actor by, BankAccountId id, LocalDate date, String text, String amount) {
        by.mayDo(Deed.BRING_IN_CASH);
        BankAccountEntity account = row(id, null);
        Money moved = Money.typed(amount, Currency.getInstance(account.currency), "amount");
        if (moved.isZero() || text.isBlank()) {
            throw Refusal.invalidField(
                    "movement-empty", "amount", "A cash movement needs a text and an amount other than zero.");
        }
        if (date.isAfter(by.today())) {
            throw Refusal.invalidField(
                    "movement-later", "date", "A cash movement has happened already; choose today or an earlier day.");
        }
        int written = jdbc.sql("""
                        INSERT IGNORE INTO cash_movement (id, bank_account_id, movement_date, text, amount_minor)
                        VALUES (NEXT VALUE FOR work_seq, :account, :date, :text, :amount)
                        """)
                .param("account", account.id)
                .param("date", date)
                .param("text", text.strip())
                .param("amount", moved.minor())
                .update();
        if (written == 0) {
            throw Refusal.conflict(
                    "movement-known", "This movement of the same day, text and amount was brought in already.");
        }
        audit.record(
                by,
                "bring in cash",
                "bank account " + account.id,
                Map.of("date", date.toString(), "text", text.strip(), "amount", moved.plain()));
    }

    /** A receipt or charge of the bank that the ledger does not have yet. */
    public record Movement(long id, LocalDate date, String text, Money amount) {}

    @Transactional(readOnly = true)
    public List<Movement> openMovements(BankAccount account) {
        return jdbc.sql(
                        "SELECT id, movement_date, text, amount_minor FROM cash_movement"
                                + " WHERE bank_account_id = :account AND closed_at IS NULL ORDER BY movement_date DESC, id LIMIT 200")
                .param("account", account.id().value())
                .query((r, n) -> new Movement(
                        r.getLong(1),
                        r.getObject(2, LocalDate.class),
                        r.getString(3),
                        Money.ofMinor(r.getLong(4), account.currency())))
                .list();
    }

    /** Says that the ledger has a movement by now, so that its cash is not counted twice. */
    @Transactional
    public void closeMovement(Actor by, BankAccountId account, long movement, String why) {
        by.mayDo(Deed.BRING_IN_CASH);
        if (why.isBlank()) {
            throw Refusal.invalidField(
                    "reason-missing", "why", "Say where the ledger has it, such as “in the entry of 11 Nov”.");
        }
        int closed = jdbc.sql("UPDATE cash_movement SET closed_at = :at, closed_by = :by, closed_why = :why"
                        + " WHERE id = :id AND bank_account_id = :account AND closed_at IS NULL")
                .param("at", java.sql.Timestamp.from(by.now()))
                .param("by", by.person().value())
                .param("why", why.strip())
                .param("id", movement)
                .param("account", account.value())
                .update();
        if (closed == 0) {
            throw Refusal.conflict(
                    "movement-closed", "There is no such open movement; somebody may have closed it. Look again.");
        }
        audit.record(
                by,
                "close cash movement",
                "bank account " + account.value(),
                Map.of("movement", movement, "why", why.strip()));
    }

    /** Main account first. */
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

    private BankAccountEntity row(BankAccountId id, @Nullable LockModeType lock) {
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
                        way -> way.bankAccountId,
                        Collectors.mapping(
                                way -> new WayToPay(new WayId(way.id), way.name, way.method), Collectors.toList())));
        return accounts.stream()
                .map(account -> view(account, ways.getOrDefault(account.id, List.of())))
                .toList();
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
                new AccountId(a.discountAccountId),
                a.positivePay,
                a.layoutId,
                Money.ofMinor(a.floorMinor, a.currency),
                a.thisRun,
                a.nextRun,
                ways);
    }
}
