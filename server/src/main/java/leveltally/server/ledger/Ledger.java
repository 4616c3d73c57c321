package leveltally.server.ledger;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.EntryId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.ledger.Period;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Writes entries and locks periods. */
@Service
public class Ledger {
    /** As much as the sequence moves on. */
    private static final long ENTRIES_AT_ONCE = 100;

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final AuditTrail audit;
    private long nextEntry;
    private long endOfEntries;

    Ledger(EntityManager entities, JdbcClient jdbc, AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.audit = audit;
    }

    @Transactional
    public AccountId addAccount(String code, String name, String kind) {
        LedgerAccountEntity account = new LedgerAccountEntity();
        account.code = code;
        account.name = name;
        account.kind = kind;
        entities.persist(account);
        return new AccountId(account.id);
    }

    @Transactional
    public void addPeriod(YearMonth month) {
        PeriodEntity period = new PeriodEntity();
        period.month = month.toString();
        entities.persist(period);
    }

    /**
     * Shares the period of a date until the transaction ends, so that it cannot be locked meanwhile (posting shares, locking
     * excludes).
     *
     * @throws Refusal when the period does not exist or is locked
     */
    @Transactional
    public void shareOpenPeriod(LocalDate ledgerDate) {
        PeriodEntity period =
                entities.find(PeriodEntity.class, YearMonth.from(ledgerDate).toString());
        if (period == null) {
            throw Refusal.invalidField(
                    "no-period",
                    "ledgerDate",
                    "There is no period for " + leveltally.core.Dates.inWords(ledgerDate)
                            + " yet. Choose a day in an open month.");
        }
        entities.refresh(period, LockModeType.PESSIMISTIC_READ);
        view(period).mustTake(ledgerDate);
    }

    /** Writes an entry into a period the caller shares; the database refuses it for a locked one. */
    @Transactional
    public EntryId write(Actor by, EntryKind kind, JournalEntry entry, EntryLinks links) {
        JournalEntryEntity row = new JournalEntryEntity();
        row.id = nextEntry();
        row.ledgerDate = entry.ledgerDate();
        row.month = YearMonth.from(entry.ledgerDate()).toString();
        row.kind = kind;
        row.text = entry.text();
        row.batchId = links.batch();
        row.paymentId = links.payment();
        row.invoiceId = links.invoice();
        row.reversesId = links.reverses();
        row.madeAt = by.now();
        row.madeBy = by.person().value();
        // the lines first: the entry closes them, and the database takes it only when they balance (law L1)
        for (JournalLine line : entry.lines()) {
            JournalLineEntity lineRow = new JournalLineEntity();
            lineRow.entryId = row.id;
            lineRow.accountId = line.account().value();
            lineRow.currency = line.amount().currency().getCurrencyCode();
            boolean debit = line.side() == JournalLine.Side.DEBIT;
            lineRow.debitMinor = debit ? line.amount().minor() : 0;
            lineRow.creditMinor = debit ? 0 : line.amount().minor();
            entities.persist(lineRow);
        }
        entities.persist(row);
        return new EntryId(row.id);
    }

    private synchronized long nextEntry() {
        if (nextEntry == endOfEntries) {
            nextEntry = jdbc.sql("SELECT NEXT VALUE FOR entry_seq")
                    .query(Long.class)
                    .single();
            endOfEntries = nextEntry + ENTRIES_AT_ONCE;
        }
        return nextEntry++;
    }

    /** An entry as it was written. */
    @Transactional(readOnly = true)
    public JournalEntry entry(EntryId id) {
        JournalEntryEntity row = entities.find(JournalEntryEntity.class, id.value());
        List<JournalLine> lines = new ArrayList<>();
        entities.createQuery(
                        "select l from JournalLineEntity l where l.entryId = :entry order by l.id",
                        JournalLineEntity.class)
                .setParameter("entry", id.value())
                .getResultStream()
                .forEach(line -> {
                    boolean debit = line.debitMinor > 0;
                    Money amount = Money.ofMinor(debit ? line.debitMinor : line.creditMinor, line.currency);
                    var side = debit ? JournalLine.Side.DEBIT : JournalLine.Side.CREDIT;
                    lines.add(new JournalLine(new AccountId(line.accountId), side, amount));
                });
        return new JournalEntry(row.ledgerDate, row.text, lines);
    }

    /** Code and name of every account. */
    @Transactional(readOnly = true)
    public Map<Long, String> accountNames() {
        return entities.createQuery("select a from LedgerAccountEntity a", LedgerAccountEntity.class)
                .getResultStream()
                .collect(java.util.stream.Collectors.toMap(a -> a.id, a -> a.code + " " + a.name));
    }

    /** An account to choose; {@code kind} is CASH, PAYABLES, EXPENSE, INCOME or EQUITY. */
    public record AccountChoice(long id, String code, String name, String kind) {}

    @Transactional(readOnly = true)
    public List<AccountChoice> accounts() {
        return entities.createQuery("select a from LedgerAccountEntity a order by a.code", LedgerAccountEntity.class)
                .getResultStream()
                .map(a -> new AccountChoice(a.id, a.code, a.name, a.kind))
                .toList();
    }

    /** Locks a period exclusively and keeps its totals (law L8). */
    @Transactional
    public void lock(Actor by, YearMonth month) {
        by.mayDo(Deed.LOCK_PERIOD);
        PeriodEntity period = exclusively(month);
        if (period.locked) {
            throw Refusal.conflict("locked-already", view(period).inWords() + " is locked already.");
        }
        long waiting = jdbc.sql("SELECT COUNT(*) FROM payment WHERE posted_entry_id IS NULL AND standing"
                        + " AND ledger_date BETWEEN :from AND :to")
                .param("from", month.atDay(1))
                .param("to", month.atEndOfMonth())
                .query(Long.class)
                .single();
        if (waiting > 0) {
            throw Refusal.conflict(
                    "payments-wait",
                    view(period).inWords() + " cannot be locked: " + waiting
                            + (waiting == 1 ? " payment has" : " payments have") + " a number but "
                            + (waiting == 1 ? "is" : "are") + " not posted. Post them first.");
        }
        PeriodLockEntity lock = new PeriodLockEntity();
        lock.month = period.month;
        lock.lockedAt = afterItsEntries(by, period.month);
        lock.lockedBy = by.person().value();
        lock.lastEntryId = jdbc.sql("SELECT MAX(id) FROM journal_entry WHERE month = :month")
                .param("month", period.month)
                .query(Long.class)
                .optional()
                .orElse(null);
        lock.settlements = jdbc.sql("SELECT COUNT(*) FROM settlement WHERE ledger_date BETWEEN :from AND :to")
                .param("from", month.atDay(1))
                .param("to", month.atEndOfMonth())
                .query(Integer.class)
                .single();
        entities.persist(lock);
        entities.flush();
        jdbc.sql("""
                        INSERT INTO period_total (lock_id, account_id, currency, debit_minor, credit_minor)
                        SELECT :lock, l.account_id, l.currency, SUM(l.debit_minor), SUM(l.credit_minor)
                        FROM journal_line l JOIN journal_entry e ON e.id = l.entry_id
                        WHERE e.month = :month GROUP BY l.account_id, l.currency
                        """).param("lock", lock.id).param("month", period.month).update();
        period.locked = true;
        audit.record(by, "lock period", "period " + period.month, Map.of());
    }

    /** Whoever wrote last may have begun after us and ended before us; the lock is later than every entry it finds. */
    private Instant afterItsEntries(Actor by, String month) {
        return jdbc.sql("SELECT MAX(made_at) FROM journal_entry WHERE month = :month")
                .param("month", month)
                .query((r, n) -> r.getTimestamp(1))
                .optional()
                .map(java.sql.Timestamp::toInstant)
                .filter(last -> last.isAfter(by.now()))
                .orElse(by.now());
    }

    /** Opens a locked period again; the reason is kept. */
    @Transactional
    public void unlock(Actor by, YearMonth month, String reason) {
        by.mayDo(Deed.LOCK_PERIOD);
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why the period is unlocked.");
        }
        PeriodEntity period = exclusively(month);
        if (!period.locked) {
            throw Refusal.conflict("not-locked", view(period).inWords() + " is not locked.");
        }
        PeriodLockEntity lock = entities.createQuery(
                        "select l from PeriodLockEntity l where l.month = :month and l.unlockedAt is null",
                        PeriodLockEntity.class)
                .setParameter("month", period.month)
                .getSingleResult();
        lock.unlockedAt = by.now();
        lock.unlockedBy = by.person().value();
        lock.unlockReason = reason;
        period.locked = false;
        audit.record(by, "unlock period", "period " + period.month, Map.of("reason", reason));
    }

    private PeriodEntity exclusively(YearMonth month) {
        PeriodEntity period = entities.find(PeriodEntity.class, month.toString());
        if (period == null) {
            throw Refusal.notFound("no-period", "There is no period " + month + ".");
        }
        entities.refresh(period, LockModeType.PESSIMISTIC_WRITE);
        return period;
    }

    private static Period view(PeriodEntity period) {
        return new Period(YearMonth.parse(period.month), period.locked);
    }
}
