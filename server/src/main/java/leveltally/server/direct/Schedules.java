package leveltally.server.direct;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.direct.Rhythm;
import leveltally.core.direct.Schedule;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.WorkIds;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What is paid again and again: kept, ended, and its days, each of which is taken into a batch or passed over. */
@Service
public class Schedules {
    private final JdbcClient jdbc;
    private final WorkIds ids;
    private final BankAccounts accounts;
    private final AuditTrail audit;

    Schedules(JdbcClient jdbc, WorkIds ids, BankAccounts accounts, AuditTrail audit) {
        this.jdbc = jdbc;
        this.ids = ids;
        this.accounts = accounts;
        this.audit = audit;
    }

    /** A day of a schedule. */
    record Day(long schedule, LocalDate dueOn) {
        static @Nullable Day of(DirectRow row) {
            Long schedule = row.schedule();
            LocalDate dueOn = row.dueOn();
            return schedule == null || dueOn == null ? null : new Day(schedule, dueOn);
        }
    }

    /**
     * One as it is kept.
     *
     * @param vendor its payee
     * @param endedOn the day somebody ended it; null while it goes on
     */
    record Kept(
            long id,
            Schedule schedule,
            BankAccountId account,
            WayId way,
            VendorId vendor,
            @Nullable LocalDate endedOn,
            String endedWhy,
            long version) {}

    /** What somebody wants one to be; {@code today} is not asked of one that goes on. */
    public record Wanted(BankAccountId account, WayId way, VendorId vendor, Schedule schedule) {}

    /** Begins one. */
    @Transactional
    public long begin(Actor by, Wanted wanted) {
        by.mayDo(Deed.KEEP_SCHEDULE);
        Schedule.beginning(wanted.schedule().first(), by.today());
        mustBePaidBy(wanted);
        long id = ids.supply().next();
        Schedule s = wanted.schedule();
        JdbcClient.StatementSpec row = jdbc.sql("""
                        INSERT INTO payment_schedule (id, name, way_id, vendor_id, reference, said, currency, amount_minor, rhythm,
                          first_on, until_on, kept_by, kept_at, version)
                        VALUES (:id, :name, :way, :vendor, :reference, :said, :currency, :amount, :rhythm, :first, :until, :by,
                          :at, 0)
                        """)
                .param("id", id)
                .param("vendor", wanted.vendor().value())
                .param("currency", s.amount().currency().getCurrencyCode())
                .params(columns(by, wanted));
        written(row, s.name());
        audit.record(by, "begin schedule", subject(id), words(s));
        return id;
    }

    /** One of a name goes on: begun once more because its answer was lost, it would be paid twice. */
    private static void written(JdbcClient.StatementSpec row, String name) {
        try {
            row.update();
        } catch (DuplicateKeyException taken) {
            throw Refusal.invalidField(
                    "name-taken",
                    "name",
                    "“" + name + "” goes on already. Look at it in the list; another one needs another name.");
        }
    }

    private void mustBePaidBy(Wanted wanted) {
        var account = accounts.get(wanted.account());
        account.mustBeOpen();
        account.payingWay(wanted.way());
        jdbc.sql("SELECT id FROM vendor WHERE id = ? AND merged_into_id IS NULL")
                .param(wanted.vendor().value())
                .query(Long.class)
                .optional()
                .orElseThrow(() -> Refusal.invalidField("no-vendor", "vendor", "Choose the vendor it is paid to."));
    }

    private static Map<String, Object> columns(Actor by, Wanted wanted) {
        Schedule s = wanted.schedule();
        Map<String, Object> columns = new HashMap<>();
        columns.put("name", s.name());
        columns.put("way", wanted.way().value());
        columns.put("reference", s.reference());
        columns.put("said", s.said());
        columns.put("amount", s.amount().minor());
        columns.put("rhythm", s.rhythm().name());
        columns.put("first", s.first());
        columns.put("until", s.until());
        columns.put("by", by.person().value());
        columns.put("at", Timestamp.from(by.now()));
        return columns;
    }

    /** Changes one that goes on; what was paid by it stays as it is. */
    @Transactional
    public void change(Actor by, long id, long version, Wanted wanted) {
        by.mayDo(Deed.KEEP_SCHEDULE);
        Kept before = going(id, version);
        mustBePaidBy(new Wanted(wanted.account(), wanted.way(), before.vendor(), wanted.schedule()));
        Schedule next = wanted.schedule().inPlaceOf(before.schedule(), dealtWith(id));
        if (!next.first().equals(before.schedule().first())) {
            Schedule.beginning(next.first(), by.today());
        }
        JdbcClient.StatementSpec row = jdbc.sql("""
                        UPDATE payment_schedule SET name = :name, way_id = :way, reference = :reference, said = :said,
                          amount_minor = :amount, rhythm = :rhythm, first_on = :first, until_on = :until, kept_by = :by,
                          kept_at = :at, version = version + 1 WHERE id = :id
                        """).param("id", id).params(columns(by, wanted));
        written(row, next.name());
        Map<String, String> was = words(before.schedule());
        Map<String, String> told = new TreeMap<>();
        words(next).forEach((field, now) -> {
            if (!now.equals(was.get(field))) {
                told.put(field, was.get(field) + " → " + now);
            }
        });
        audit.record(by, "change schedule", subject(id), told);
    }

    private @Nullable LocalDate dealtWith(long id) {
        return taken(Set.of(id), 0).keySet().stream()
                .map(Day::dueOn)
                .max(Comparator.naturalOrder())
                .orElse(null);
    }

    /** Ends one: none of its days is proposed any more. */
    @Transactional
    public void end(Actor by, long id, long version, String why) {
        by.mayDo(Deed.KEEP_SCHEDULE);
        going(id, version);
        jdbc.sql("UPDATE payment_schedule SET ended_on = ?, ended_why = ?, version = version + 1 WHERE id = ?")
                .params(by.today(), reason(why, "Say why it ends."), id)
                .update();
        audit.record(by, "end schedule", subject(id), Map.of("reason", why.strip()));
    }

    /** Passes over a day: it is not paid, and not proposed any more. */
    @Transactional
    public void passOver(Actor by, long id, LocalDate dueOn, String why) {
        by.mayDo(Deed.KEEP_SCHEDULE);
        Kept kept = lock(id);
        mustFall(kept, dueOn);
        String taken = taken(Set.of(id), 0).get(new Day(id, dueOn));
        if (taken != null) {
            throw Refusal.conflict(
                    "day-taken", "What is due on " + Dates.inWords(dueOn) + " is " + taken + " already.");
        }
        jdbc.sql("INSERT INTO schedule_pass (schedule_id, due_on, why, passed_by, passed_at) VALUES (?, ?, ?, ?, ?)")
                .params(
                        id,
                        dueOn,
                        reason(why, "Say why this day is not paid."),
                        by.person().value(),
                        Timestamp.from(by.now()))
                .update();
        audit.record(by, "pass over a day", subject(id), Map.of("day", dueOn.toString(), "reason", why.strip()));
    }

    /** Proposes a day again that was passed over. */
    @Transactional
    public void proposeAgain(Actor by, long id, LocalDate dueOn) {
        by.mayDo(Deed.KEEP_SCHEDULE);
        mustFall(lock(id), dueOn);
        int gone = jdbc.sql("DELETE FROM schedule_pass WHERE schedule_id = ? AND due_on = ?")
                .params(id, dueOn)
                .update();
        if (gone > 0) {
            audit.record(by, "propose a day again", subject(id), Map.of("day", dueOn.toString()));
        }
    }

    private static String reason(String typed, String sentence) {
        String why = typed.strip();
        if (why.isEmpty() || why.length() > 200) {
            throw Refusal.invalidField("reason-missing", "reason", sentence);
        }
        return why;
    }

    private Kept going(long id, long version) {
        Kept kept = lock(id);
        if (kept.version() != version) {
            throw Refusal.conflict(
                    "changed-meanwhile",
                    "Somebody changed this schedule meanwhile. Nothing of yours was saved; look at it as it is now.");
        }
        if (kept.endedOn() != null) {
            throw Refusal.conflict(
                    "schedule-ended", "It ended on " + Dates.inWords(kept.endedOn()) + ". Begin another.");
        }
        return kept;
    }

    private Kept lock(long id) {
        return read("WHERE s.id = :id FOR UPDATE", Map.of("id", id)).stream()
                .findFirst()
                .orElseThrow(
                        () -> Refusal.notFound("no-schedule", "There is no such schedule. Choose one from the list."));
    }

    private static void mustFall(Kept kept, LocalDate dueOn) {
        if (!kept.schedule().fallsOn(dueOn)) {
            throw Refusal.conflict(
                    "no-such-day",
                    "“" + kept.schedule().name() + "” has no payment on " + Dates.inWords(dueOn)
                            + " any more. Look at the proposals again.");
        }
    }

    /** All of them, those that go on first. */
    List<Kept> all() {
        return read("ORDER BY s.ended_on IS NOT NULL, s.name, s.id", Map.of());
    }

    private List<Kept> read(String which, Map<String, ?> params) {
        return jdbc.sql(
                        "SELECT s.*, (SELECT w.bank_account_id FROM way_to_pay w WHERE w.id = s.way_id) AS bank_account_id"
                                + " FROM payment_schedule s " + which)
                .params(params)
                .query((r, n) -> kept(r))
                .list();
    }

    private static Kept kept(ResultSet r) throws SQLException {
        return new Kept(
                r.getLong("id"),
                new Schedule(
                        r.getString("name"),
                        r.getString("reference"),
                        r.getString("said"),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                        Rhythm.valueOf(r.getString("rhythm")),
                        r.getObject("first_on", LocalDate.class),
                        r.getObject("until_on", LocalDate.class)),
                new BankAccountId(r.getLong("bank_account_id")),
                new WayId(r.getLong("way_id")),
                new VendorId(r.getLong("vendor_id")),
                r.getObject("ended_on", LocalDate.class),
                r.getString("ended_why"),
                r.getLong("version"));
    }

    /** Which days of the rows' schedules are paid or passed over, in words; those of one batch do not count. */
    Map<Day, String> taken(List<DirectRow> rows, long but) {
        return taken(
                rows.stream().map(DirectRow::schedule).filter(Objects::nonNull).collect(Collectors.toSet()), but);
    }

    Map<Day, String> taken(Collection<Long> schedules, long but) {
        Map<Day, String> taken = new HashMap<>();
        if (schedules.isEmpty()) {
            return taken;
        }
        jdbc.sql("""
                        SELECT schedule_id, due_on, CONCAT('in the batch “', name, '”') AS place FROM schedule_paid
                        WHERE schedule_id IN (:schedules) AND batch_id <> :but
                        UNION ALL SELECT schedule_id, due_on, CONCAT('passed over: ', why) FROM schedule_pass
                        WHERE schedule_id IN (:schedules)
                        """).param("schedules", schedules).param("but", but).query((ResultSet r) -> {
            taken.put(new Day(r.getLong("schedule_id"), r.getObject("due_on", LocalDate.class)), r.getString("place"));
        });
        return taken;
    }

    /**
     * Holds the schedules of rows that were written.
     *
     * @throws Refusal when one of them ended, or has no payment on that day any more, or is not of that payee
     */
    void mustFall(List<DirectSeen> rows, BatchId batch) {
        Map<Long, Kept> held = new LinkedHashMap<>();
        for (DirectSeen row : rows) {
            Day day = Day.of(row.row());
            if (day != null) {
                Kept kept = held.computeIfAbsent(day.schedule(), this::lock);
                if (kept.endedOn() != null) {
                    throw Refusal.conflict(
                            "schedule-ended",
                            "“" + kept.schedule().name() + "” ended on " + Dates.inWords(kept.endedOn())
                                    + ". Take its row out.");
                }
                mustFall(kept, day.dueOn());
                if (!kept.vendor().equals(row.vendor())) {
                    throw Refusal.conflict(
                            "other-payee",
                            "“" + kept.schedule().name() + "” does not pay " + row.payee()
                                    + ". Take its row out, and type this payment in a row of its own.");
                }
            }
        }
        taken(held.keySet(), batch.value()).forEach((day, where) -> {
            if (rows.stream().anyMatch(row -> day.equals(Day.of(row.row())))) {
                throw Refusal.conflict(
                        "day-taken",
                        "What is due on " + Dates.inWords(day.dueOn()) + " was taken meanwhile, " + where
                                + ". Look at the proposals again.");
            }
        });
    }

    /** Whoever ever said what the schedules of these rows pay. */
    Set<PersonId> keepers(List<DirectRow> rows) {
        Set<Long> schedules =
                rows.stream().map(DirectRow::schedule).filter(Objects::nonNull).collect(Collectors.toSet());
        return schedules.isEmpty()
                ? Set.of()
                : new HashSet<>(jdbc.sql("SELECT DISTINCT person_id FROM schedule_hand WHERE schedule_id IN (:ids)")
                        .param("ids", schedules)
                        .query((r, n) -> new PersonId(r.getLong("person_id")))
                        .list());
    }

    private static Map<String, String> words(Schedule s) {
        Map<String, String> words = new TreeMap<>();
        words.put("name", s.name());
        words.put("reference", s.reference());
        words.put("for", s.said());
        words.put("amount", s.amount().toString());
        words.put("how often", s.rhythm().words());
        words.put("first", s.first().toString());
        words.put("until", s.until() == null ? "no end" : s.until().toString());
        return words;
    }

    private static String subject(long id) {
        return "schedule " + id;
    }
}
