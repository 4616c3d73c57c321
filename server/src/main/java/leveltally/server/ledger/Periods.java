package leveltally.server.ledger;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Collection;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.ledger.OpenedMonths;
import leveltally.core.ledger.Period;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.Role;
import leveltally.server.audit.AuditTrail;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The months of the ledger: opened ahead, locked, unlocked with a reason. */
@Service
public class Periods {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final AuditTrail audit;

    Periods(EntityManager entities, JdbcClient jdbc, AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.audit = audit;
    }

    /** The months there are. */
    @Transactional(readOnly = true)
    public OpenedMonths opened() {
        return jdbc.sql("SELECT MIN(month) AS first, MAX(month) AS last FROM period")
                .query((r, n) -> r.getString("first") == null
                        ? new OpenedMonths(null, null)
                        : new OpenedMonths(YearMonth.parse(r.getString("first")), YearMonth.parse(r.getString("last"))))
                .single();
    }

    /** Opens a month, the one after the last or before the first; entries can then be dated in it. */
    @Transactional
    public void open(Actor by, YearMonth month) {
        by.mayDo(Deed.OPEN_PERIOD);
        opened().mustTake(month, YearMonth.from(by.today()));
        int opened = jdbc.sql("INSERT IGNORE INTO period (month, locked, version) VALUES (:month, FALSE, 0)")
                .param("month", month.toString())
                .update();
        if (opened == 0) {
            throw OpenedMonths.alreadyOpened(month);
        }
        audit.record(by, "open period", "period " + month, Map.of());
    }

    /**
     * Shares the period of a date until the transaction ends, so that it cannot be locked meanwhile (posting shares, locking
     * excludes).
     *
     * @throws Refusal when the period does not exist or is locked
     */
    @Transactional
    public void shareOpen(LocalDate ledgerDate) {
        PeriodEntity period =
                entities.find(PeriodEntity.class, YearMonth.from(ledgerDate).toString());
        if (period == null) {
            throw unknown(ledgerDate);
        }
        entities.refresh(period, LockModeType.PESSIMISTIC_READ);
        view(period).mustTake(ledgerDate);
    }

    /**
     * The same for something new: a month that is being closed takes none, except of a controller.
     *
     * @throws Refusal when the period does not exist, is locked, or is being closed
     */
    @Transactional
    public void shareForNew(Actor by, LocalDate ledgerDate) {
        shareOpen(ledgerDate);
        PeriodEntity period =
                entities.find(PeriodEntity.class, YearMonth.from(ledgerDate).toString());
        view(period).mustTakeNew(ledgerDate, by.roles());
    }

    /** Those of these months that there are, as they stand now; nobody is kept from locking one. */
    @Transactional(readOnly = true)
    public Map<YearMonth, Period> known(Collection<YearMonth> months) {
        return entities.createQuery("select p from PeriodEntity p where p.month in :months", PeriodEntity.class)
                .setParameter("months", months.stream().map(YearMonth::toString).toList())
                .getResultStream()
                .map(Periods::view)
                .collect(Collectors.toMap(Period::month, period -> period));
    }

    /**
     * The same question as {@link #shareForNew} for who only looks.
     *
     * @throws Refusal when the month of that day is not among the known ones, is locked, or is being closed
     */
    public static void mustTakeNew(Set<Role> roles, Map<YearMonth, Period> known, LocalDate ledgerDate) {
        Period period = known.get(YearMonth.from(ledgerDate));
        if (period == null) {
            throw unknown(ledgerDate);
        }
        period.mustTakeNew(ledgerDate, roles);
    }

    private static Refusal unknown(LocalDate ledgerDate) {
        return Refusal.invalidField(
                "no-period",
                "ledgerDate",
                "There is no period for " + leveltally.core.Dates.inWords(ledgerDate)
                        + " yet. Choose a day in an open month, or have a controller open that month in Ledger.");
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
        return jdbc.sql("SELECT MAX(made_at) AS made_at FROM journal_entry WHERE month = :month")
                .param("month", month)
                .query((r, n) -> r.getTimestamp("made_at"))
                .optional()
                .map(java.sql.Timestamp::toInstant)
                .filter(last -> last.isAfter(by.now()))
                .orElse(by.now());
    }

    /** Begins or ends the closing of an open month: while it lasts, clerks finish what is under way and begin nothing new. */
    @Transactional
    public void close(Actor by, YearMonth month, boolean closing) {
        by.mayDo(Deed.LOCK_PERIOD);
        PeriodEntity period = exclusively(month);
        if (period.locked) {
            throw Refusal.conflict("locked-already", view(period).inWords() + " is locked already.");
        }
        if (period.closing != closing) {
            period.closing = closing;
            audit.record(
                    by, closing ? "begin closing period" : "end closing period", "period " + period.month, Map.of());
        }
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
        return new Period(YearMonth.parse(period.month), period.locked, period.closing);
    }
}
